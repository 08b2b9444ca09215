export { mulberry32, normalDraw } from './random'
export { fastNormalCdf, inverseNormal, normalCdf } from './normal'
export { minimise } from './minimise'
