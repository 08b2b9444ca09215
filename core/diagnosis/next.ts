/**
 * What settles most: the test that is expected to tell most of the cause per minute, and what costs nothing but a look.
 * Source: mutual information of result and cause (Shannon 1948); common practice, no source, for the minutes.
 */
import { need } from '../numeric'
import { CAUSES, type Cause } from './causes'
import { chanceOfResult, type Chances } from './posterior'
import { CHANCE, resultsOf, SIGNS, TESTS, type Finds, type Result, type Sign, type Table, type Tests } from './table'

const entropy = (p: readonly number[]) => p.reduce((t, x) => (x > 0 ? t - x * Math.log2(x) : t), 0)

/** How much is expected to be told of the cause by what comes out in one of several ways, bits. */
function bitsOf(p: Chances, ways: readonly ((c: Cause) => number)[]): number {
  for (const c of CAUSES) need(c, p[c], 0, 1)
  let after = 0
  for (const way of ways) {
    const weights = CAUSES.map(c => p[c] * way(c))
    const sum = weights.reduce((a, b) => a + b, 0)
    if (sum > 0) after += sum * entropy(weights.map(w => w / sum))
  }
  return Math.max(0, entropy(CAUSES.map(c => p[c])) - after)
}

/** How much a test is expected to tell of the cause, bits; chances from 0 to 1 by cause. Throws InputError. */
export function tellsBits(p: Chances, test: Finds): number {
  return bitsOf(
    p,
    resultsOf(test).map(result => c => chanceOfResult(test, result, c)),
  )
}
/** How much looking for a sign is expected to tell of the cause, bits; chances from 0 to 1. Throws InputError. */
export function looksBits(p: Chances, row: Result): number {
  const chance = (c: Cause) => row.under[c] ?? row.usual
  for (const c of CAUSES) need('chance', chance(c), ...CHANCE)
  return bitsOf(p, [chance, c => 1 - chance(c)])
}

/** What tells less than this is not worth a look, bits. */
export const WORTH_BITS = 0.02

export interface NextTest {
  name: string
  bits: number
  minutes: number
}
/** Tests that were not made and tell something, the one that tells most per minute first. */
export function nextTests(p: Chances, made: readonly string[], tests: Tests = TESTS): NextTest[] {
  return Object.entries(tests)
    .filter(([name]) => !made.includes(name))
    .map(([name, t]) => ({ name, bits: tellsBits(p, t), minutes: t.minutes }))
    .filter(t => t.bits >= WORTH_BITS)
    .sort((a, b) => b.bits / b.minutes - a.bits / a.minutes)
}

/** Signs that nobody has asked after and that tell something, the one that tells most first. */
export function nextLooks(p: Chances, asked: readonly string[], table: Table = SIGNS): { sign: Sign; bits: number }[] {
  return Object.entries(table)
    .filter(([sign]) => !asked.includes(sign))
    .map(([sign, row]) => ({ sign: sign as Sign, bits: looksBits(p, row) }))
    .filter(l => l.bits >= WORTH_BITS)
    .sort((a, b) => b.bits - a.bits)
}
