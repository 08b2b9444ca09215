/**
 * Procedures: lists of steps worked out for one head or printer, ticked one by one. °C as set at the printer, mm, N·m.
 * What is outside its range is refused by an InputError that names the field; sources stand at the head of each file.
 */
export { rankNozzles } from './choose'
export type { Candidate, Choice, Coming } from './choose'
export { notReadyToGo, rankHotends } from './choose-hotend'
export type { HotendChoice } from './choose-hotend'
export { burnOut, CLEARED_BY, CLOG_BORE_MM, clogDoubt, clogSteps, coldPullC, needleMm } from './clog'
export type { ClogFacts } from './clog'
export { commissionFacts, commissionSteps, guardsOf } from './commission'
export type { CommissionFacts } from './commission'
export {
  byHand,
  FRESH_MS,
  missingBefore,
  NEAR_C,
  progress,
  READ_C,
  typedState,
  unproved,
  valueFaults,
  waitState,
  waitWords,
  WORDS_LONG,
} from './engine'
export type { FieldFault, Progress, WaitState } from './engine'
export {
  CEILING_C,
  COOLED_C,
  HOTEND_GUARDS,
  hotendSteps,
  LEADS,
  matchWords,
  portsOf,
  ROOM_FAR_C,
  roomDoubt,
} from './hotend'
export type { HotendFacts, HotendThing } from './hotend'
export type { HeadFacts } from './shared'
export { LENGTH_FAR_MM, LENGTH_MM, lengthChange, lengthDoubt, swapSteps, swapZ, Z_FAR_MM } from './swap'
export type { SwapFacts, SwapNozzle, SwapZ } from './swap'
export type { Field, Hazard, Proof, Reading, Step, Ticked, Values, Wait } from './types'
