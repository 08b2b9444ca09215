/**
 * What worked with a material, a type of nozzle and a printer: found from runs that finished, corrected by hand, and
 * held against a job. °C, mm, mm/s, mm³/s, %, min, N. What is outside its range is refused by an InputError that names
 * the field and what is allowed; sources stand at the head of each file.
 */
export { BOND_N, bondShare, CARD_FIELDS, CARD_KEYS, cardValues, compareJob, ofJob, recordOf } from './card'
export type { CardKey, CardValue, Compared, Found, FoundValues, HandValues, Tried } from './card'
export { countWords, differsWords, spreadWords, valueWords } from './words'
