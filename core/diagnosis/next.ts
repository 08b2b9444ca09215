/**
 * The test that settles most per minute: how much it is expected to tell of the cause, over what it costs.
 * Source: mutual information of result and cause (Shannon 1948); common practice, no source, for the minutes.
 */
import { need } from '../numeric'
import { CAUSES, type Cause } from './causes'
import type { Chances } from './posterior'
import { CHANCE, TESTS, type TestRow } from './table'

const entropy = (p: readonly number[]) => p.reduce((t, x) => (x > 0 ? t - x * Math.log2(x) : t), 0)

/** How much a test is expected to tell of the cause, bits. */
export function tellsBits(p: Chances, test: Pick<TestRow, 'usual' | 'under'>): number {
  for (const c of CAUSES) need(c, p[c], 0, 1)
  const chance = (c: Cause) => test.under[c] ?? test.usual
  for (const c of CAUSES) need('chance', chance(c), ...CHANCE)
  const now = entropy(CAUSES.map(c => p[c]))
  let after = 0
  for (const result of [true, false]) {
    const weights = CAUSES.map(c => p[c] * (result ? chance(c) : 1 - chance(c)))
    const sum = weights.reduce((a, b) => a + b, 0)
    if (sum > 0) after += sum * entropy(weights.map(w => w / sum))
  }
  return Math.max(0, now - after)
}

export interface NextTest {
  name: string
  bits: number
  minutes: number
}
/** Tests that were not made, the one that tells most per minute first. */
export function nextTests(
  p: Chances,
  made: readonly string[],
  tests: Readonly<Record<string, TestRow>> = TESTS,
): NextTest[] {
  return Object.entries(tests)
    .filter(([name]) => !made.includes(name))
    .map(([name, t]) => ({ name, bits: tellsBits(p, t), minutes: t.minutes }))
    .sort((a, b) => b.bits / b.minutes - a.bits / a.minutes)
}
