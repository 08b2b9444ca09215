/**
 * What a shop did by week and month: names of weeks, and how often a job comes out well. Counts and shares from 0 to 1.
 * What is outside its range is refused by an InputError that names the field and what is allowed; sources stand at the
 * head of each file.
 */
export { isoWeek } from './week'
export { successRate } from './success'
export type { SuccessRate } from './success'
