/**
 * The flow bench: what a nozzle on its head delivers of a filament. Plan, job file, weighing, delivered shares, the
 * flow that is sustained, and what holds it back. mm³/s, mm, g, °C, shares of the nominal mass. What is outside its
 * range is refused by an InputError that names the field and what is allowed; sources stand at the head of each file.
 *
 * @example
 * const filament = { lengthMm: 1000, diameterMm: 1.75, densityGCm3: 1.24, callipersMm: null, mark: null }
 * const blob = (flowMm3S: number, massG: number) => ({ temperatureC: 220, flowMm3S, massG, uG: 0.004 })
 * const shares = sharesOf([blob(8, 2.98), blob(12, 2.97), blob(16, 2.6)], filament)
 * benchResult(shares, 0.95)?.sustained[0]?.reach // "between"
 */
export * from './plan'
export { cellRefusal, hottestCellC } from './allowed'
export type { BenchLimits } from './allowed'
export { benchFile, STAND_XY_MM, STAND_Z_MM, TOOL_NUMBERS } from './file'
export type { BenchFile } from './file'
export { BALANCE_STEP_G, balanceFor, GROSS_G, MOST_BALANCE_SHARE, netOf, netUG, PAN_G, panMoved } from './balance'
export type { Weighed } from './balance'
export { monotoneTable, poolAdjacent } from './monotone'
export type { Measured } from './monotone'
export { CALLIPER_PLACES, MARK_MM, nominalOf, sharesOf, UNMEASURED } from './shares'
export type { Blob, Cell, Filament, Nominal, Shares } from './shares'
export { ACCEPTED_RANGE, ACCEPTED_SHARE, benchResult, sustainedFor } from './sustained'
export type { BenchResult, Fitted, Reach, Sustained } from './sustained'
export { sustainedWords } from './words'
export { levelOf } from './shortfall'
export type { Level, LevelAsks } from './shortfall'
export { compareBenches, SHOWS } from './compare'
export type { Compared } from './compare'
export { droppedSince, HOTTER_C, limitOf, stallMoved } from './stall'
export type { Beside, Limit, LimitFound, Move, Moved } from './stall'
