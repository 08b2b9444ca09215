/**
 * How likely each cause is by what was seen, looked for in vain, told by the records and found by tests. What was not
 * asked says nothing. Reproducible by hand: the start times the product of the table's chances, each further sign of a
 * group by its root, divided by the sum.
 * Source: Bayes' rule; Dirichlet weights for how often each was it (Gelman et al., Bayesian Data Analysis, 3rd ed.,
 * section 3.4).
 */
import { InputError, need } from '../numeric'
import { CAUSES, CLOSING_WEIGHT, LEAST_ELSE, START_CASES, START_OF_100, type Cause, type Known } from './causes'
import { CHANCE, SIGNS, TESTS, type Row, type Table, type TestRow } from './table'

/** What is known of a case: signs that are there and that were looked for in vain, and results of tests. */
export interface Evidence {
  seen: readonly string[]
  not: readonly string[]
  tests: Readonly<Record<string, 'positive' | 'negative'>>
}
export type Chances = Readonly<Record<Cause, number>>
/** A closed case: what it was, and how that is known. */
export interface Closing {
  cause: Cause
  known: Known
}

/**
 * How likely each cause is before a case is looked at: the start as ten cases, and each closing by its weight.
 *
 * @example
 * startOf([]).moisture // 0.16
 */
export function startOf(closed: readonly Closing[]): Chances {
  const weights = Object.fromEntries(CAUSES.map(c => [c, (START_OF_100[c] / 100) * START_CASES])) as Record<
    Cause,
    number
  >
  for (const { cause, known } of closed) {
    if (!CAUSES.includes(cause)) throw new InputError('cause', cause, 'one of the causes')
    weights[cause] += CLOSING_WEIGHT[known]
  }
  // nobody's list is whole: what is not on it keeps its share however many cases were closed
  const others = CAUSES.reduce((t, c) => t + (c === 'something else' ? 0 : weights[c]), 0)
  weights['something else'] = Math.max(weights['something else'], (LEAST_ELSE / (1 - LEAST_ELSE)) * others)
  return normal(weights)
}

function normal(weights: Record<Cause, number>): Chances {
  const sum = CAUSES.reduce((t, c) => t + weights[c], 0)
  return Object.fromEntries(CAUSES.map(c => [c, weights[c] / sum])) as Record<Cause, number>
}

/** The chance of a sign, or of a positive result, under a cause; refused outside what the table may hold. */
function chanceOf(row: Pick<Row, 'usual' | 'under'>, cause: Cause): number {
  const p = row.under[cause] ?? row.usual
  need('chance', p, ...CHANCE)
  return p
}

/** One piece of evidence as it counts: the ratio under a cause, and its power in its group. */
export interface Counted {
  key: string
  /** Its chance under each cause: of being there, or of not being there. */
  chance: (c: Cause) => number
  power: number
}
/** Evidence in the order of the table, with its power: 1 for the first of its group, a half for each further one. */
export function counted(
  e: Evidence,
  table: Table = SIGNS,
  tests: Readonly<Record<string, TestRow>> = TESTS,
): Counted[] {
  const known = (key: string) => {
    if (!(key in table)) throw new InputError('sign', key, 'a sign of the table')
  }
  e.seen.forEach(known)
  e.not.forEach(known)
  const both = e.seen.find(s => e.not.includes(s))
  if (both !== undefined) throw new InputError('not', both, 'not both seen and looked for in vain')
  const groups = new Set<string>()
  const signs = Object.entries(table).flatMap(([key, row]): Counted[] => {
    const seen = e.seen.includes(key)
    if (!seen && !e.not.includes(key)) return []
    const power = row.group === null || !groups.has(row.group) ? 1 : 0.5
    if (row.group !== null) groups.add(row.group)
    return [{ key, chance: c => (seen ? chanceOf(row, c) : 1 - chanceOf(row, c)), power }]
  })
  const results = Object.entries(e.tests).map(([key, result]): Counted => {
    const row = tests[key]
    if (!row) throw new InputError('test', key, 'a test of the table')
    return { key, chance: c => (result === 'positive' ? chanceOf(row, c) : 1 - chanceOf(row, c)), power: 1 }
  })
  return [...signs, ...results]
}

/**
 * How likely each cause is now. `start` from `startOf`; `table` and `tests` are the project's own unless given. Throws
 * InputError for a sign or a test that the table does not have.
 */
export function posterior(
  start: Chances,
  e: Evidence,
  table: Table = SIGNS,
  tests: Readonly<Record<string, TestRow>> = TESTS,
): Chances {
  for (const c of CAUSES) need(c, start[c], 0, 1)
  const list = counted(e, table, tests)
  // all chances lie between 0.05 and 0.95: a hundred signs do not leave the range of a double
  const weights = Object.fromEntries(
    CAUSES.map(c => [c, list.reduce((w, x) => w * x.chance(c) ** x.power, start[c])]),
  ) as Record<Cause, number>
  return normal(weights)
}

/** The likeliest cause is named from this chance on. */
export const NAMED_FROM = 0.35
/** And held to be it from this one. */
export const SURE_FROM = 0.7
/** And only where it is so much likelier than the next. */
const CLEARER = 1.6

export interface Answer {
  /** Null: not enough to tell. */
  cause: Cause | null
  sure: boolean
  /** Causes from the likeliest down. */
  order: { cause: Cause; chance: number }[]
}
/** What can be said: the likeliest cause, or that it is not enough to tell. */
export function answerOf(p: Chances): Answer {
  for (const c of CAUSES) need(c, p[c], 0, 1)
  const order = CAUSES.map(cause => ({ cause, chance: p[cause] })).sort((a, b) => b.chance - a.chance)
  const [first, second] = [order[0]!, order[1]!]
  const named =
    first.chance >= NAMED_FROM && first.chance >= CLEARER * second.chance && first.cause !== 'something else'
  return { cause: named ? first.cause : null, sure: named && first.chance >= SURE_FROM, order }
}
