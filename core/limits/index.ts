/**
 * May this job go on this printer: parts, demands, verdicts with reasons, the cheapest changes. °C, mm, minutes. What
 * is outside its range is refused by an InputError that names the field and what is allowed; sources stand at the head
 * of each file.
 */
export * from './types'
export { KINDS, isKind, kindOf, kindsOf, partOf } from './kinds'
export type { Kind } from './kinds'
export {
  CONDUCTIVITY_OFFSET_C,
  FILLER_ASKS_MOHS,
  isAbrasive,
  MOHS,
  NOZZLE_LIMIT_C,
  NOZZLE_MINUTES,
  NOZZLE_PRICE,
  nozzlePart,
  offsetC,
} from './nozzles'
export { ANY_C, DETAIL_RANGES, RULE_RANGES } from './check'
export { ADHESIVES, onSheet, readSurface, SHEETS, SURFACES, surfaceReason, surfaceText, welds } from './surfaces'
export type { Sheet, Surface } from './surfaces'
export {
  AIR_PLACES,
  AIR_RANGES,
  AIR_TRUST,
  airAt,
  airSources,
  LEAST_RISE_C,
  openingOf,
  OPENINGS,
  PRACTICE_AIR,
  recordSource,
} from './air'
export type { AirAt, AirMap, AirPlace, AirSource, AirTrust, Opening } from './air'
export { gradeOf, ONE_SIDED_90, worstOf } from './margin'
export type { Grade } from './margin'
export { narrower, usableWindows, usableWords } from './usable'
export type { Usable, Used } from './usable'
export { airFrom, chamberAir, heatLines, hottestBed, settlesAt, soakDemand, soakRefusal } from './heated'
export type { HeatSet, Settles } from './heated'
export { bendStrain, tightestBend } from './bend'
export type { AirParts, OperatingPoint, PlaceAir } from './operating'
export { airPlaceOf, isMakers, standsAt, zoneOf } from './checks'
export { GUARD_FLOOR_C, guardOf, heatAt, heatFor, knownOf, sensorsOf } from './heat'
export type { HeadSensors, Heat } from './heat'
export type { Zone } from './checks'
export { ceilingOf, ceilings, checkStack, LIMITS_MODEL, nozzleKind, stackOf, usableLimits } from './stack'
export type { Ceiling, Stack } from './stack'
export { after, bestClass, better, classify, compile, findChanges, judge, NO_OFFERS } from './changes'
export type { Compiled, Found, Offers, Option, Swap, Verdict } from './changes'
export {
  HOTEND_MINUTES,
  HOTEND_ROLES,
  hotendMinutes,
  isHotendRole,
  sameSensor,
  SENSOR_TYPE_MINUTES,
  withHotend,
} from './hotend'
export type { Hotend } from './hotend'
export { hotendInstead } from './hotend-instead'
export type { Instead } from './hotend-instead'
export { blockersOf, byDedication, compileFleet, consequencesOf, dedicate, matrix, runsAsItIs } from './fleet'
export type { AsItIs, Cell, Consequences, Dedication, Filament, MixPart } from './fleet'
export { demandOf, demandOfJob, ORDERED_FACTS, setProblems, VALUE_KEYS, VALUES } from './windows'
export type { Asking, Fact, Facts, PracticeSet, Setpoints, ValueKey } from './windows'
export { START_WINDOWS, startWindow } from './start-windows'
export type { StartWindow } from './start-windows'
export { readDataSheet } from './data-sheet'
export type { SheetRead } from './data-sheet'
export {
  describedPart,
  describedPrinter,
  DRYERS_ARE_THE_SHOPS,
  STARTING_STACKS,
  stackProblems,
} from './starting-stacks'
export type { DescribedPart, DescribedStack, StartingStack } from './starting-stacks'
export { CLASS_WORDS, heatSays, inOrder, makesSays, marginOf, PLACE_WORDS, reason, wordsOf } from './words'
export { sentenceOf, tightest } from './verdict-words'
export type { LineWords } from './words'
export { furthest, shopDryer } from './dryers'
export type { ShopDryer } from './dryers'
