/**
 * What is wrong with this print: how likely each main cause is by signs, records and tests, what speaks for and
 * against it, and which test settles most per minute. Chances from 0 to 1, minutes, bits. What is outside its range is
 * refused by an InputError that names the field and what is allowed; sources stand at the head of each file.
 *
 * @example
 * const e = { seen: ['popping', 'stringing', 'steam or bubbles in the strand'], not: [], tests: {} }
 * answerOf(posterior(startOf([]), e)).cause // "moisture"
 */
export { CAUSES, CLOSING_WEIGHT, LEAST_ELSE, START_CASES, START_OF_100 } from './causes'
export type { Cause, Known } from './causes'
export { CHANCE, SIGNS, TESTS } from './table'
export type { Row, Sign, Table, TestName, TestRow } from './table'
export { answerOf, counted, NAMED_FROM, posterior, startOf, SURE_FROM } from './posterior'
export type { Answer, Chances, Closing, Counted, Evidence } from './posterior'
export { nextTests, tellsBits } from './next'
export type { NextTest } from './next'
