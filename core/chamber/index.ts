/**
 * The chamber: how it warms up, how long to soak, and what a survey with probes finds. s, min, °C, mm. What is outside
 * its range is refused by an InputError that names the field and what is allowed; sources stand at the head of each
 * file.
 */
export { CHAMBER_C, fitWarmUp, timeToHold, warmUpAt } from './warm-up'
export type { Dip, FittedWarmUp, Reading, WarmUp } from './warm-up'
export { HOLDS_WITHIN_C, PART_SIZES, PRACTICE_SOAK_MIN, soakPlan } from './soak'
export type { PartSize, Soak } from './soak'
export { readSurveyTable, readTable } from './readings-table'
export type { Clock, ReadSurveyTable, ReadTable, TableProblem } from './readings-table'
export { FEWEST_READINGS, PRACTICE_TAU_S, STEADY_STATES, STEADY_WITHIN_C, steadyAt, TAU_S } from './steady'
export type { Read, Steady, SteadyState } from './steady'
export { evenness, POSITION_MM } from './gradient'
export type { Evenness, ProbeAt } from './gradient'
export {
  GAP_MM,
  MOST_PROBES,
  MOST_READINGS,
  placesOf,
  PROBE_UC,
  ROOM_C,
  SIZE_MM,
  SURVEY_BED_C,
  SURVEY_CHAMBER_C,
  surveyFound,
  surveySources,
} from './survey'
export type { ChamberSize, ProbeFound, Survey, Surveyed, SurveyFound, SurveyProbe, SurveyState } from './survey'
