/**
 * What is due at the bench, why, and how much it matters. One rule for each, whoever asks: the Floor, a list, a record.
 */
export { byWeight, isPutOff, keyOf, mayBePutOff, STATIONS, weightOf } from './due'
export type { Due, Station } from './due'
export { BROKEN, dueOfNozzle, gaugeDue, JOBS_AHEAD, PROBABLY_PAST, wornOut } from './nozzle'
export type { GaugeDue, NozzleFacts } from './nozzle'
export { askedAgainst, dueOfPrinter, firstGauge } from './printer'
export type { PrinterFacts } from './printer'
export {
  dueOfCoolDown,
  dueOfDrying,
  dueOfLowSpool,
  dueOfSoak,
  dueOfSpoolOut,
  dueOfUnknownSpool,
  dueOfWetSpool,
  LONGEST_SOAK_H,
  minutesLeft,
  soakStands,
} from './prepare'
export {
  checkEvery,
  comesInDays,
  dueOfComing,
  dueOfGuard,
  dueOfNoUpkeep,
  dueOfUntested,
  dueOfUpkeep,
  EVERY,
  FOUND,
  guardName,
  upkeepHazards,
  UPKEEP_KINDS,
  upkeepShare,
  usualUpkeep,
} from './upkeep'
export type { Every, Found, PlannedUpkeep, UpkeepKind, UpkeepStand } from './upkeep'
export { dueOfBed, dueOfCertificate, dueOfPin, dueOfSensor, dueOfSurvey, dueOfUnchecked, SURVEY_DAYS } from './verify'
export { dueOfStock } from './stock'
export type { ShelfFacts } from './stock'
export { NOTHING_STANDS, notReady } from './ready'
export type { NotReady, Standing } from './ready'
