/**
 * Wear of nozzle bores and tips against fibre mass: laws, posterior, pooling over sister nozzles, fibre left, next
 * gauge. mm, kg of wear mass, chances from 0 to 1. What is outside its range is refused by an InputError that names
 * the field and what is allowed; sources stand at the head of each file.
 */
export { boreAfter, wearToLimit } from './laws'
export { fillerKgFor, wearKg } from './wear-mass'
export { FLARE_SHARE, LEAST_RANDOM_MM, pictureReading, usualFlareMm } from './pictures'
export { countedPin, isOfPin, isPinPair, PIN_CERTIFICATE_U_MM, PIN_NEAR_MM, pinAt, PINS_APART_MM } from './pins'
export type { PinCertificate, PinSize } from './pins'
export { BORE_MM, BORE_U_MM, GAUGED_MM, MOST_PICTURES, NOMINAL_MM, WEAR_KG } from './check'
export { TIP_MM, TIP_U_RANGE_MM, tipLife, tipLossAt, tipPosterior } from './tip'
export { DOUBT, NEW_BORE_U_MM, STANDARD_BORES_MM, startOf, USED_GROWTH } from './start'
export type { StartPart } from './start'
export { RowStore } from './layout'
export { boreAt, borePosterior, lnKappa } from './posterior'
export type { BorePosterior } from './posterior'
export { rangeOf } from './crossing'
export { brokenBy, massLife, wearAtRisk, wearAtRisks } from './life'
export type { Life } from './life'
export { beyondBore, expectedReading, takenForMisread, UNUSUAL, wouldExplain } from './expected'
export type { Beyond, Expected } from './expected'
export {
  FEWEST_SISTERS,
  MU_SD,
  pooledPrior,
  priorMoved,
  sisterTerm,
  sumTerms,
  TAU_SCALE,
  TERM_LENGTH,
  withoutTerm,
  withTerm,
} from './pooling'
export type { SisterTerm } from './pooling'
export {
  boreBands,
  boreLife,
  compareLaws,
  FEWEST_GAUGES,
  fleetForecast,
  forecast,
  LEAST_BAYES_FACTOR,
  tipPrior,
  WEAR_MODEL,
} from './forecast'
export type { Band, FleetForecast, FleetNozzle, LawVerdict, NozzleForecast, NozzleInput, RetireRules } from './forecast'
export * from './start-values'
export type {
  BoreHistory,
  BoreObservation,
  Doubt,
  Law,
  LogNormalPrior,
  Range,
  Spread,
  TipHistory,
  TipObservation,
} from './types'
