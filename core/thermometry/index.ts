/**
 * Sensors: what they read, how finely, and how far off they are. °C, Ω, mV. What is outside its range is refused by an
 * InputError that names the field and what is allowed; sources stand at the head of each file.
 */
export {
  CVD_A,
  CVD_B,
  CVD_C,
  leadError,
  PT_FILM_RANGE_C,
  PT_WIRE_RANGE_C,
  platinumCelsius,
  platinumOhm,
  platinumSlope,
  THREE_WIRE_LEAVES,
  WIRINGS,
} from './platinum'
export type { Wiring } from './platinum'
export {
  COLD_C,
  thermocoupleCelsius,
  thermocoupleMillivolt,
  thermocoupleRangeC,
  thermocoupleSlope,
  THERMOCOUPLES,
} from './thermocouple'
export type { Thermocouple } from './thermocouple'
export { firmwareTable, ntcCelsius, ntcOhm, ofBeta, ohmOf, steinhartHart } from './ntc'
export type { Divider, SteinhartHart, TableLine } from './ntc'
export { ntcResolution, platinumResolution, typeKResolution } from './resolution'
export {
  ALLOWED_C,
  allowedAt,
  PLATINUM_BUILDS,
  PLATINUM_CLASSES,
  platinumTolerance,
  THERMOCOUPLE_CLASSES,
  thermocoupleTolerance,
} from './tolerance'
export type { Allowed, PlatinumBuild, PlatinumClass, ThermocoupleClass } from './tolerance'
export {
  CERTIFICATE_UC,
  checkReference,
  COLD_JUNCTION_UC,
  LEAD_OHM,
  METER,
  R0_OHM,
  READ_IN,
  REFERENCE_C,
  REFERENCE_KINDS,
  referenceSays,
} from './reference'
export type { ReadIn, Reference, ReferenceKind, Said, Share } from './reference'
export { placementOf, PLACEMENTS, placementsOf, SENSED } from './placement'
export type { Placement, PlacementFacts, Sensed } from './placement'
export {
  CHECK_VERDICTS,
  FAR_OFF_C,
  MOST_POINTS,
  SAME_POINT_C,
  sensorCheck,
  SHOWN_C,
  SWING_C,
  verdictOn,
} from './sensor-check'
export type { CheckResult, CheckVerdict, CorrectionPoint, Point, PointResult } from './sensor-check'
export { correctionAt, correctionFrom, firstAbove, REACHES_C, setFor } from './correction'
export type { CheckedAt, Corrected, Correction } from './correction'
export { CHECK_BOUNDS_H, driftBetween, nextCheckHours, sensorState, START_CHECK_H } from './drift'
export type { Drift, SensorState } from './drift'
