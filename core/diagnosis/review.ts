/**
 * How often what was said was right, by the cases that were proved: an assumed answer proves nothing. What was said
 * before any test is counted by itself, since a test that settles it makes everybody right.
 */
import type { Cause, Known } from './causes'
import { chanceOfResult, type Chances } from './posterior'
import { TESTS } from './table'

/** A closed case with what was said: null, that it was not enough to tell. */
export interface Reviewed {
  cause: Cause
  known: Known
  /** Named when it was closed. */
  said: Cause | null
  /** The likeliest before any test. */
  ledBefore: Cause
}
export interface Review {
  closed: number
  proved: number
  /** Of the proved ones: a cause was named, and it was that. */
  named: number
  right: number
  /** Of the proved ones: the likeliest before any test was it. */
  rightBefore: number
}

/** Counts of closed cases. */
export function reviewOf(closed: readonly Reviewed[]): Review {
  const proved = closed.filter(c => c.known === 'proved')
  return {
    closed: closed.length,
    proved: proved.length,
    named: proved.filter(c => c.said !== null).length,
    right: proved.filter(c => c.said === c.cause).length,
    rightBefore: proved.filter(c => c.ledBefore === c.cause).length,
  }
}

/** A result speaks for a cause where it is so many times likelier under it than usual. */
const SPEAKS_FOR = 2

/** Tests whose result speaks for a cause: what may be said to prove it. Throws InputError for what no test finds. */
export function testsThatSpeakFor(cause: Cause, tests: Readonly<Record<string, string>>, start: Chances): string[] {
  return Object.entries(tests).flatMap(([name, result]) => {
    const row = TESTS[name as keyof typeof TESTS]
    if (!row) return []
    const under = (c: Cause) => chanceOfResult(row, result, c)
    const others = Object.keys(start) as Cause[]
    const usual = others.reduce((t, c) => (c === cause ? t : t + start[c] * under(c)), 0) / (1 - start[cause])
    return under(cause) >= SPEAKS_FOR * usual ? [name] : []
  })
}
