/**
 * How likely each cause is by what was seen, looked for in vain, told by the records and found by tests. What was not
 * asked says nothing. Reproducible by hand: the start times the product of the table's chances, each further sign of a
 * group by its root, divided by the sum.
 * Source: Bayes' rule; Dirichlet weights for how often each was it (Gelman et al., Bayesian Data Analysis, 3rd ed.,
 * section 3.4).
 */
import { InputError, need } from '../numeric'
import { CAUSES, CLOSING_WEIGHT, LEAST_ELSE, START_CASES, START_OF_100, type Cause, type Known } from './causes'
import { CHANCE, resultsOf, SIGNS, TESTS, type Finds, type Row, type Table, type Tests } from './table'

/** What is known of a case: signs that are there or were looked for in vain, results of tests, what was mended. */
export interface Evidence {
  seen: readonly string[]
  not: readonly string[]
  /** What each test found. */
  tests: Readonly<Record<string, string>>
  /** Causes that were put right, and it still shows. */
  right?: readonly Cause[]
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

/** The chance of a sign, or of a result, under a cause; refused outside what the table may hold. */
function chanceOf(row: Pick<Row, 'usual' | 'under'>, cause: Cause): number {
  const p = row.under[cause] ?? row.usual
  need('chance', p, ...CHANCE)
  return p
}
/** The chance that a test finds this under a cause; what it finds otherwise has what is left. */
export function chanceOfResult(test: Finds, result: string, cause: Cause): number {
  const row = test.results[result]
  if (row) return chanceOf(row, cause)
  if (result !== test.otherwise) throw new InputError('result', result, 'what this test may find')
  const left = Object.values(test.results).reduce((t, r) => t - chanceOf(r, cause), 1)
  need('chance', left, ...LEFT)
  return left
}
/** What is left is a difference of decimals. */
const LEFT = [CHANCE[0] - 1e-9, CHANCE[1] + 1e-9] as const

/** One piece of evidence as it counts: its chance under a cause, and its power in its group. */
export interface Counted {
  kind: 'sign' | 'test' | 'put right'
  /** The sign, the test or the cause. */
  key: string
  /** Whether the sign is there, what the test found, or that it shows all the same. */
  state: string
  /** Its chance under each cause: of being there, or of not being there. */
  chance: (c: Cause) => number
  power: number
}
/** A sign that is there. */
export const THERE = 'there'
/** A sign that was looked for in vain. */
export const NOT_THERE = 'not there'
/** What is put right and still shows was hardly it. */
const STILL_SHOWS = 'still shows'

/**
 * Evidence as it counts: what was put right, tests, then signs in the order of the table; 1 for the first of its group,
 * a half for each further one. Throws InputError for what the tables do not have.
 */
export function counted(e: Evidence, table: Table = SIGNS, tests: Tests = TESTS): Counted[] {
  const known = (key: string) => {
    if (!(key in table)) throw new InputError('sign', key, 'a sign of the table')
  }
  e.seen.forEach(known)
  e.not.forEach(known)
  const both = e.seen.find(s => e.not.includes(s))
  if (both !== undefined) throw new InputError('not', both, 'not both seen and looked for in vain')
  const groups = new Set<string>()
  const powerIn = (group: string | null) => {
    const power = group === null || !groups.has(group) ? 1 : 0.5
    if (group !== null) groups.add(group)
    return power
  }
  const mended = (e.right ?? []).map((cause): Counted => {
    if (!CAUSES.includes(cause)) throw new InputError('right', cause, 'one of the causes')
    const chance = (c: Cause) => (c === cause ? CHANCE[0] : CHANCE[1])
    return { kind: 'put right', key: cause, state: STILL_SHOWS, chance, power: 1 }
  })
  const unknown = Object.keys(e.tests).find(key => !(key in tests))
  if (unknown !== undefined) throw new InputError('test', unknown, 'a test of the table')
  const results = Object.entries(tests).flatMap(([key, row]): Counted[] => {
    const state = e.tests[key]
    if (state === undefined) return []
    if (!resultsOf(row).includes(state)) throw new InputError('result', state, 'what this test may find')
    return [{ kind: 'test', key, state, chance: c => chanceOfResult(row, state, c), power: powerIn(row.group) }]
  })
  const signs = Object.entries(table).flatMap(([key, row]): Counted[] => {
    const seen = e.seen.includes(key)
    if (!seen && !e.not.includes(key)) return []
    const chance = (c: Cause) => (seen ? chanceOf(row, c) : 1 - chanceOf(row, c))
    return [{ kind: 'sign', key, state: seen ? THERE : NOT_THERE, chance, power: powerIn(row.group) }]
  })
  return [...mended, ...results, ...signs]
}

/**
 * How likely each cause is now. `start` from `startOf`; `table` and `tests` are the project's own unless given. Throws
 * InputError for a sign or a test that the table does not have.
 */
export function posterior(start: Chances, e: Evidence, table: Table = SIGNS, tests: Tests = TESTS): Chances {
  return weighed(start, counted(e, table, tests))
}
/** The same of evidence that was counted already. */
function weighed(start: Chances, list: readonly Counted[]): Chances {
  for (const c of CAUSES) need(c, start[c], 0, 1)
  // all chances lie between 0.05 and 0.95: a hundred signs do not leave the range of a double
  const weights = Object.fromEntries(
    CAUSES.map(c => [c, list.reduce((w, x) => w * x.chance(c) ** x.power, start[c])]),
  ) as Record<Cause, number>
  return normal(weights)
}

/** How a piece of evidence moved a cause. */
export interface Moved {
  evidence: Counted
  /** Chance of the cause before it and with it. */
  before: number
  after: number
}
/**
 * How a cause got to where it is, piece by piece in the order in which they count: the first starts at the start, the
 * last ends at the posterior.
 */
export function wayOf(cause: Cause, start: Chances, e: Evidence, table: Table = SIGNS, tests: Tests = TESTS): Moved[] {
  const list = counted(e, table, tests)
  let before = start[cause]
  return list.map((evidence, i) => {
    const after = weighed(start, list.slice(0, i + 1))[cause]
    const moved = { evidence, before, after }
    before = after
    return moved
  })
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
