/**
 * Changing a nozzle or a filament: swap temperature, Z, torque, purging. °C, mm, N·m, MPa. What is outside its range
 * is refused by an InputError that names the field and what is allowed; sources stand at the head of each file.
 */
export { bodyOf, HOT_YIELD_MPA, MAKERS_NM, stressAreaMm2, torqueCeiling, torqueFor } from './torque'
export type { Joint } from './torque'
export { START_TURN_C, turning } from './turning'
export type { Turning } from './turning'
export { APPROACH_MM, Z_MM, Z_WAYS, zNumbers, zWords } from './z'
export type { ZWay } from './z'
export { swapTemperature, zChange } from './swap'
export type { SwapTemperature } from './swap'
export { purge, purgeOn, PURGE_ABOVE_C, SLOWNESS, START_MELT_MM3, washout } from './purge'
export type { Flowing, Purge, Step } from './purge'
