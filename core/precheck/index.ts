/**
 * The check before a run. °C, mm³/s, g, h, min. What is outside its range is refused by an InputError that names the
 * field and what is allowed; sources stand at the head of each file.
 */
export { CHECK_KEYS, CHECK_PLACES } from './types'
export type { CheckKey, CheckLine, CheckPlace, CheckStatus, LimitLine, PrecheckFacts, WindowOfMaterial } from './types'
export { FIRST_LAYER, precheck } from './check'
export { chamberStands, FAN_MOST, fanStands, flowStands, headStands, setpointsStand, sheetStands } from './stands'
export type { SetpointsStand } from './stands'
export { REASON_CHARS, settles, stillAnswered, verdictOf } from './verdict'
export type { Answer, Answered, PrecheckVerdict } from './verdict'
export { likeliest } from './profile'
