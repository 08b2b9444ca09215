/**
 * The chamber: how it warms up, and how long to soak. s, min, °C. What is outside its range is refused by an
 * InputError that names the field and what is allowed; sources stand at the head of each file.
 */
export { fitWarmUp, timeToHold, warmUpAt } from './warm-up'
export type { Dip, FittedWarmUp, Reading, WarmUp } from './warm-up'
export { HOLDS_WITHIN_C, PART_SIZES, PRACTICE_SOAK_MIN, soakPlan } from './soak'
export type { PartSize, Soak } from './soak'
export { readTable } from './readings-table'
export type { Clock, ReadTable, TableProblem } from './readings-table'
