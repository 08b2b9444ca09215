/**
 * What is wrong with this print: how likely each main cause is by signs, records and tests, what speaks for and
 * against it, and which test settles most per minute. Chances from 0 to 1, minutes, bits. What is outside its range is
 * refused by an InputError that names the field and what is allowed; sources stand at the head of each file.
 *
 * @example
 * const e = { seen: ['popping', 'stringing', 'steam or bubbles in the strand'], not: [], tests: {} }
 * answerOf(posterior(startOf([]), e)).cause // "moisture"
 */
export { CAUSES, CLOSING_WEIGHT, countsAs, KNOWN_BY, LEAST_ELSE, START_CASES, START_OF_100 } from './causes'
export type { Cause, Known, KnownBy } from './causes'
export { CHANCE, resultsOf, SIGNS, TESTS } from './table'
export type { Finds, Result, Row, Sign, Table, TestName, TestRow, Tests } from './table'
export {
  answerOf,
  chanceOfResult,
  counted,
  NAMED_FROM,
  NOT_THERE,
  posterior,
  startOf,
  SURE_FROM,
  THERE,
  wayOf,
} from './posterior'
export type { Answer, Chances, Closing, Counted, Evidence, Moved } from './posterior'
export { looksBits, nextLooks, nextTests, tellsBits, WORTH_BITS } from './next'
export type { NextTest } from './next'
export { evidenceOf, LATELY_DAYS, NOT_ASKED, OVER_DRIED, recordsTell, SIGN_STATES, signWords } from './known'
export type { Finding, KnownFacts, Told } from './known'
export { reviewOf, testsThatSpeakFor } from './review'
export type { Review, Reviewed } from './review'
export { answerWords, causeWords, PROBABLE_FROM, speaks } from './words'
export type { Speaks } from './words'
