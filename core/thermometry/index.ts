/**
 * Sensors: what they read and how finely. °C, Ω, mV. What is outside its range is refused by an InputError that names
 * the field and what is allowed; sources stand at the head of each file.
 */
export { CVD_A, CVD_B, CVD_C, PT_FILM_RANGE_C, PT_WIRE_RANGE_C, platinumOhm, platinumSlope } from './platinum'
export { typeKMillivolt, typeKSlope } from './thermocouple'
export { ntcOhm, ntcResolution, platinumResolution, typeKResolution } from './resolution'
export type { Divider } from './resolution'
