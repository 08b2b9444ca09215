export { mulberry32, normalDraw } from './random'
export { fastNormalCdf, normalCdf } from './normal'
export { minimise } from './minimise'
