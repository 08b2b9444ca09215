/**
 * Water in filament: drying plans, the wet-out clock, and a spool's state through its history. °C, % relative
 * humidity, wt% of water, hours, m²/s; times in ms since 1970. What is outside its range is refused by an InputError
 * that names the field and what is allowed; sources stand at the head of each file.
 */
export { besselJ0, besselJ1, zerosOfJ0 } from './bessel'
export { crankUptake, shortTimeUptake } from './crank'
export { AIR_C, dewPointRh, heatedRh, RH_PERCENT, saturationPa } from './humidity'
export {
  diffusivity,
  equilibriumWater,
  filamentOf,
  polymerWater,
  takesNoWater,
  ratePerS,
  rhFor,
  START_UPTAKE,
} from './filament'
export { CLEAN_WT, isPolyamide, marksOf, wetVerdict } from './marks'
export type { Marks } from './marks'
export { spoolDryness } from './dryness'
export type { SpoolDryness, WaterRange } from './dryness'
export type { Filament, UptakeFacts } from './filament'
export { carried, evenly, goneThroughSurface, meanAfter, meanWater, WATER_WT } from './shells'
export type { Moisture } from './shells'
export {
  DRYING_MODEL,
  factorAt,
  FILL,
  historyProblems,
  newSpool,
  PLACES_OF_SPOOL,
  START_WOUND,
  stayed,
  throughHistory,
  trace,
} from './history'
export type { SpoolPlace, SpoolWater, Stay, TracePoint, Wound } from './history'
export { drynessFixes, drynessFor, dryTime } from './wet-out'
export type { Air, DryTime, PrintDryness } from './wet-out'
export { fitFactor } from './factor'
export type { FittedFactor, Weighing } from './factor'
export { hubCeilingC, HUB_WORDS, HUBS, UNKNOWN_HUB_C } from './hubs'
export {
  asksHub,
  BED_SHARE,
  DESICCANT_DEW_C,
  DRYER_KINDS,
  VACUUM_SHARE,
  dryerRh,
  DRYING_C,
  dryingPlan,
  dryingRefusal,
  hoursToDry,
  leftAfter,
  OVER_DRY_H,
  safeCap,
  spoolTempC,
  TIME_OUT_H,
} from './plan'
export type { Cap, Dryer, DryerKind, DryingAim, DryingLimits, DryingPlan, DryingReason, HoursTo } from './plan'
