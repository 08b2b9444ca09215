/**
 * The chamber: how it warms up, how long to soak, what a survey with probes finds, what an enclosure is planned to
 * hold, and what stops its heaters. s, min, °C, mm, W. What is outside its range is refused by an InputError that names
 * the field and what is allowed; sources stand at the head of each file.
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
  surveyHolds,
  surveySources,
} from './survey'
export type { ChamberSize, ProbeFound, Survey, Surveyed, SurveyFound, SurveyProbe, SurveyState } from './survey'
export { airProperties, FACINGS, FILM_C, gapFilm, horizontalFilm, radiantFilm, SIZE_M, verticalFilm } from './films'
export type { AirAtFilm, Facing, Film } from './films'
export { burnsFromC, CONTACTS_S, safeContactS, TOUCHED } from './touch'
export type { Touched } from './touch'
export {
  isWallMaterial,
  LAYER_MM,
  MOST_LAYERS,
  MOST_WALLS,
  solidResistance,
  WALL_FACES,
  WALL_M2,
  WALL_MATERIAL_NAMES,
  WALL_MATERIALS,
  wallHeat,
  withMore,
} from './walls'
export type { Layer, Wall, WallFace, WallHeat, WallMaterial, WallMaterialName } from './walls'
export {
  AS_DRAWN,
  BED_UNDER,
  checkPlan,
  heaterFor,
  PLAN_RANGES,
  steadyAir,
  stuckOn,
  timeConstant,
  ventFor,
} from './balance'
export type { EnclosurePlan, Fit, Losses, PlannedBed, Steady as SteadyAir } from './balance'
export { FIT_WAYS, fitBothWays, fitsOf } from './fits'
export type { Fits, FitWay, Span, WarmedUp } from './fits'
export { HOLD_S, meanAt, placeC, planOutcome, powerFor } from './planner'
export type { Matter, Outcome, PlannedAir, PlannedPart, Planning, Stuck, TouchLine } from './planner'
export { GUARDED, GUARDS, guardState, TEST_DAYS, TEST_EVERY_DAYS } from './cut-outs'
export type { Guard, GuardState } from './cut-outs'
