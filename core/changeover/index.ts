/** Changing a nozzle: swap temperature, Z, torque. */
export { ChangeoverError, HOT_YIELD_MPA, stressAreaMm2, torqueCeiling } from './torque'
export type { Joint } from './torque'
export { swapTemperature, zChange } from './swap'
export type { SwapTemperature } from './swap'
