/**
 * What is wrong with this print, against the written cases (answers of a careful technician, committed before the
 * table), and against what must hold of any such table.
 */
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  answerOf,
  CAUSES,
  CHANCE,
  chanceOfResult,
  nextTests,
  posterior,
  resultsOf,
  SIGNS,
  startOf,
  tellsBits,
  TESTS,
  type Cause,
  type Evidence,
  type Row,
  type Table,
  type TestRow,
} from '#core/diagnosis'
import { CASES, KNOWN, SEEN, type DiagnosisCase } from './diagnosis-cases'

const evidenceOf = (c: DiagnosisCase): Evidence => ({
  seen: [...c.seen, ...(c.known ?? [])],
  not: c.not ?? [],
  tests: {},
})
const start = startOf([])
const told = (c: DiagnosisCase) => answerOf(posterior(start, evidenceOf(c)))

describe('the written cases', () => {
  test('the table has every sign that they speak of', () => {
    for (const key of [...SEEN, ...KNOWN]) expect(Object.keys(SIGNS), key).toContain(key)
  })
  test.each(CASES.map(c => [c.name, c] as const))('%s', (_, c) => {
    const a = told(c)
    const [first, second] = a.order
    const top = [first, second].map(o => `${o!.cause} ${o!.chance.toFixed(2)}`).join(', ')
    if (c.answer === null) expect(a.sure, top).toBe(false)
    else expect([c.answer, ...(c.or ?? [])], top).toContain(a.order[0]!.cause)
    if (c.answer !== null && !c.or) expect(a.cause, top).toBe(c.answer)
    // where two are named in one breath, both lead
    if (c.or && c.answer !== null)
      expect(
        a.order.slice(0, 3).map(o => o.cause),
        top,
      ).toContain(c.answer)
  })
  test('no row of evidence alone makes a right answer a sure wrong one', () => {
    for (const c of CASES.filter(x => x.answer !== null)) {
      const right = [c.answer, ...(c.or ?? [])]
      const e = evidenceOf(c)
      for (const key of [...e.seen, ...e.not]) {
        const without = { ...e, seen: e.seen.filter(k => k !== key), not: e.not.filter(k => k !== key) }
        const a = answerOf(posterior(start, without))
        if (a.sure) expect(right, `${c.name}, without ${key}`).toContain(a.cause)
      }
    }
  })
})

describe('any such table', () => {
  test('holds chances that no sign weighs more than 20 to 1 by, seen or in vain', () => {
    expect(CHANCE[1] / CHANCE[0]).toBeLessThan(20)
    for (const row of Object.values(SIGNS) as Row[])
      for (const p of [row.usual, ...Object.values(row.under)]) {
        expect(p).toBeGreaterThanOrEqual(CHANCE[0])
        expect(p).toBeLessThanOrEqual(CHANCE[1])
      }
    for (const [name, row] of Object.entries(TESTS))
      for (const cause of CAUSES)
        for (const result of resultsOf(row)) {
          const p = chanceOfResult(row, result, cause)
          expect(p, `${name}, ${result}, ${cause}`).toBeGreaterThanOrEqual(CHANCE[0] - 1e-9)
          expect(p, `${name}, ${result}, ${cause}`).toBeLessThanOrEqual(CHANCE[1] + 1e-9)
        }
  })
  const keys = Object.keys(SIGNS)
  const evidence = fc
    .record({ seen: fc.subarray(keys, { maxLength: 8 }), not: fc.subarray(keys, { maxLength: 5 }) })
    .map(e => ({ seen: e.seen, not: e.not.filter(k => !e.seen.includes(k)), tests: {} }))
  test('raising the chance of a sign under one cause alone never lowers that cause where it is seen', () => {
    const table = SIGNS as Table
    fc.assert(
      fc.property(evidence, fc.constantFrom(...CAUSES), fc.double({ min: 0, max: 1, noNaN: true }), (e, cause, up) => {
        const key = e.seen[0]
        if (key === undefined) return
        const row = table[key]!
        const p = row.under[cause] ?? row.usual
        const raised = { ...row, under: { ...row.under, [cause]: p + up * (CHANCE[1] - p) } }
        const before = posterior(start, e, table)[cause]
        expect(posterior(start, e, { ...table, [key]: raised })[cause]).toBeGreaterThanOrEqual(before - 1e-12)
      }),
      { numRuns: 400, seed: 5 },
    )
  })
  test('chances add up to one, and something else starts at a tenth', () => {
    fc.assert(
      fc.property(evidence, e => {
        expect(CAUSES.reduce((t, c) => t + posterior(start, e)[c], 0)).toBeCloseTo(1, 9)
      }),
      { numRuns: 100, seed: 6 },
    )
    expect(start['something else']).toBeCloseTo(0.1, 9)
    const many = Array.from({ length: 200 }, () => ({ cause: 'moisture', known: 'proved' }) as const)
    expect(startOf(many)['something else']).toBeCloseTo(0.1, 9)
  })
  test('what was not asked says nothing, what was looked for in vain does', () => {
    const nothing = { seen: [], not: [], tests: {} }
    for (const c of CAUSES) expect(posterior(start, nothing)[c]).toBeCloseTo(start[c], 12)
    const vain = posterior(start, { ...nothing, not: ['popping'] })
    expect(vain.moisture).toBeLessThan(start.moisture)
  })
  test('by hand: popping and nothing else', () => {
    // 0.16 · 0.8 = 0.128 against 0.03 · 0.12 + 0.81 · 0.08 = 0.0684
    expect(posterior(start, { seen: ['popping'], not: [], tests: {} }).moisture).toBeCloseTo(0.128 / 0.1964, 4)
  })
})

describe('the next test', () => {
  test('tells what an enumeration of all outcomes says', () => {
    const p = posterior(start, { seen: ['under-extruded'], not: [], tests: {} })
    for (const t of Object.values(TESTS) as TestRow[]) {
      // Σ over causes and results of P(c, r) · log2( P(c, r) / (P(c) · P(r)) )
      let bits = 0
      for (const found of resultsOf(t)) {
        const joint = (c: Cause) => {
          const chances = Object.entries(t.results).map(([r, x]): [string, number] => [r, x.under[c] ?? x.usual])
          const rest = 1 - chances.reduce((s, [, x]) => s + x, 0)
          return p[c] * (chances.find(([r]) => r === found)?.[1] ?? rest)
        }
        const result = CAUSES.reduce((s, c) => s + joint(c), 0)
        for (const c of CAUSES) bits += joint(c) * Math.log2(joint(c) / (p[c] * result))
      }
      expect(tellsBits(p, t)).toBeCloseTo(bits, 9)
    }
  })
  test('per minute: a lens before a night in the dryer, and none twice', () => {
    const p = posterior(start, { seen: ['uneven lines'], not: [], tests: {} })
    const list = nextTests(p, [])
    expect(list[0]!.minutes).toBeLessThanOrEqual(5)
    expect(list.findIndex(t => t.name === 'lens')).toBeLessThan(list.findIndex(t => t.name === 'spool dried'))
    expect(nextTests(p, [list[0]!.name]).map(t => t.name)).not.toContain(list[0]!.name)
  })
  test('a gauge past its limit settles uneven lines', () => {
    const e = { seen: ['uneven lines'], not: ['popping'], tests: { gauge: 'past its limit' } } as const
    expect(answerOf(posterior(start, e))).toMatchObject({ cause: 'worn nozzle', sure: true })
  })
})

test('closed cases move the start: proved ones whole, assumed ones a quarter', () => {
  const grip = (known: 'proved' | 'assumed') => startOf([{ cause: 'grip', known }]).grip
  // ten cases to begin with, one more; something else keeps its tenth: (0.6 + w) / ((9 + w) / 0.9)
  expect(grip('proved')).toBeCloseTo((0.6 + 1) / ((9 + 1) / 0.9), 9)
  expect(grip('assumed')).toBeCloseTo((0.6 + 0.25) / ((9 + 0.25) / 0.9), 9)
})
