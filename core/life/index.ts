/** How long units last: a Weibull of what failed and what has not yet, and a life from the spread of the wear rate. */
export { FEWEST_FAILURES, fitWeibull } from './weibull'
export type { LifeRecord, NoWeibull, WeibullFit } from './weibull'
export { boreLifeSpread, lifeKgAt, medianLifeKg } from './spread'
export type { LifeSpread } from './spread'
