/** Sensors: what they read and how finely. °C, Ω, mV. */
export { CVD_A, CVD_B, CVD_C, PT_FILM_RANGE_C, PT_WIRE_RANGE_C, platinumOhm, platinumSlope } from './platinum'
export { typeKMillivolt, typeKSlope } from './thermocouple'
export { ntcOhm, ntcResolution, platinumResolution, typeKResolution } from './resolution'
export type { Divider } from './resolution'
