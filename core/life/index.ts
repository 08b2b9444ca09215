/**
 * How long units last: a Weibull of what failed and what has not yet, and a life from the spread of the wear rate. kg,
 * or the unit of the records. What is outside its range is refused by an InputError that names the field and what is
 * allowed; sources stand at the head of each file.
 */
export { FEWEST_FAILURES, fitWeibull, weibullRanges } from './weibull'
export type { LifeRange, LifeRecord, NoWeibull, WeibullFit } from './weibull'
export { foundPast, LIFE_ENDS, lifeRecordOf, plotPoints } from './records'
export type { LifeEnd, NozzleLife, PlotPoint } from './records'
export { boreLifeSpread, lifeKgAt, meanLifeKg, medianLifeKg } from './spread'
export type { Life, LifeSpread, WeibullLife } from './spread'
