/**
 * How long units last: a Weibull of what failed and what has not yet, and a life from the spread of the wear rate. kg,
 * or the unit of the records. What is outside its range is refused by an InputError that names the field and what is
 * allowed; sources stand at the head of each file.
 */
export { FEWEST_FAILURES, fitWeibull } from './weibull'
export type { LifeRecord, NoWeibull, WeibullFit } from './weibull'
export { boreLifeSpread, lifeKgAt, medianLifeKg } from './spread'
export type { LifeSpread } from './spread'
