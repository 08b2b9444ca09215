/** The check before a run. */
export { CHECK_KEYS } from './types'
export type { CheckKey, CheckLine, CheckStatus, PrecheckFacts, WindowOfMaterial } from './types'
export { FAN_MOST, FIRST_LAYER, precheck } from './check'
export { verdictOf } from './verdict'
export type { Answer, PrecheckVerdict } from './verdict'
export { likeliest } from './profile'
