/**
 * What must hold for every stack and every demand: the search against brute force, and monotonicity of verdicts and
 * ceilings.
 */
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  after,
  ceilingOf,
  checkStack,
  classify,
  compile,
  findChanges,
  NO_OFFERS,
  partOf,
  stackOf,
  START_RULES,
  type Compiled,
  type Demand,
  type Line,
  type Printer,
  type Swap,
  type VerdictClass,
} from '#core/limits'
import { demands, printers } from './any-printer'

const RULES = START_RULES
const RANK: Record<VerdictClass, number> = { 'runs': 0, 'just': 1, 'changes': 2, 'cannot tell': 3, 'cannot': 4 }

/**
 * Every combination of the options, judged on the printer as it then is: no shared code with the search but the checks
 * themselves.
 */
function bruteForce(c: Compiled, demand: Demand): { cost: number | null; sure: boolean } {
  let best: number | null = null
  let sure = false
  const walk = (g: number, swaps: Swap[], cost: number, airChanged: boolean): void => {
    if (g < c.groups.length) {
      for (const o of c.groups[g]!.options) walk(g + 1, o.swap ? [...swaps, o.swap] : swaps, cost + o.cost, airChanged)
      return
    }
    const lines = checkStack(stackOf(after(c.printer, c.stack.headId, swaps), c.stack.headId), demand, RULES).lines
    // a change to the air counts when it is expected to do, not when it only might
    const below = (l: Line) => l.status === 'just' && l.allowed! < l.asked!
    if (lines.some(l => l.status === 'short' || (airChanged && below(l)))) return
    if (best === null || cost < best) best = cost
    if (!lines.some(l => l.status === 'unknown')) sure = true
  }
  for (const n of c.nozzles)
    for (const t of c.tubes)
      for (const a of c.air) {
        const freed = t.swap !== null && t.result?.id === c.stack.tube?.id
        // there the lid's own swap stands in the list
        if (freed && c.stack.tube!.details.freedNeedsLidOff && a.result.lid) continue
        const swaps = [n, t, a].flatMap(o => (o.swap ? [o.swap] : []))
        walk(0, swaps, n.cost + t.cost + a.cost, a.swap !== null)
      }
  return { cost: best, sure }
}
/** Few enough options to try them all: some groups keep two, the others what is fitted. */
function fewer(c: Compiled, keep: readonly number[]): Compiled {
  const groups = c.groups.map((g, i) => ({
    ...g,
    options: g.options.filter((o, k) => o.swap === null || (keep.includes(i) && k < 4)).slice(0, 3),
  }))
  const some = <T>(v: T[], k: number) => v.slice(0, k)
  const nozzles = some(c.nozzles, 4)
  return { ...c, groups, nozzles, nozzlesAtBest: nozzles, tubes: some(c.tubes, 3), air: some(c.air, 2) }
}

describe('change search', () => {
  test('finds the cheapest set of swaps, and none exactly when there is none', () => {
    fc.assert(
      fc.property(printers, demands, fc.uniqueArray(fc.nat(12), { maxLength: 4 }), (p, d, keep) => {
        const c = fewer(compile(p, 0, NO_OFFERS, RULES), keep)
        const found = findChanges(c, [d])
        const brute = bruteForce(c, d)
        if (brute.cost === null) expect(found).toBeNull()
        else {
          expect(found!.cost).toBeCloseTo(brute.cost, 6)
          const lines = checkStack(stackOf(after(p, 0, found!.swaps), 0), d, RULES).lines
          expect(lines.filter(l => l.status === 'short')).toEqual([])
          expect(lines.some(l => l.status === 'unknown')).toBe(found!.unknown)
        }
      }),
      { numRuns: 250, seed: 3 },
    )
  })
  test('the class of a cell agrees with the search', () => {
    fc.assert(
      fc.property(printers, demands, (p, d) => {
        const c = compile(p, 0, NO_OFFERS, RULES)
        const cls = classify(c, d)
        const found = findChanges(c, [d])
        const lines = checkStack(c.stack, d, RULES).lines
        if (cls === 'cannot') expect(found).toBeNull()
        else expect(found).not.toBeNull()
        if (cls === 'runs' || cls === 'just')
          expect([found!.swaps.length, lines.some(l => l.status === 'just')]).toEqual([0, cls === 'just'])
        // a known no is a no, whatever else is missing
        const no = lines.some(l => l.status === 'short')
        expect(no).toBe(cls === 'changes' || cls === 'cannot')
        expect(!no && lines.some(l => l.status === 'unknown')).toBe(cls === 'cannot tell')
      }),
      { numRuns: 600, seed: 5 },
    )
  })
})

describe('monotonicity', () => {
  test('a dryer that reaches further never worsens a verdict; nothing short leaves the missing fact', () => {
    fc.assert(
      fc.property(printers, demands, fc.integer({ min: 1, max: 200 }), (p, d, by) => {
        const reaching = p.dryers.map(x => ({ ...x, details: { reachC: x.details.reachC! + by } }))
        const [before, then] = [p, { ...p, dryers: reaching }].map(x => classify(compile(x, 0, NO_OFFERS, RULES), d))
        if (before === 'changes' && then === 'cannot tell') return
        expect(RANK[then!]).toBeLessThanOrEqual(RANK[before!])
      }),
      { seed: 7, numRuns: 1000 },
    )
  })
  test('raising any limit or bend never worsens a verdict', () => {
    fc.assert(
      fc.property(printers, demands, fc.nat(200), fc.integer({ min: 1, max: 200 }), (p, d, which, by) => {
        const i = which % p.parts.length
        const raised: Printer = {
          ...p,
          parts: p.parts.map((x, k) =>
            k !== i
              ? x
              : {
                  ...x,
                  limitC: x.limitC === null ? null : x.limitC + by,
                  details: {
                    ...x.details,
                    ...(x.details.bendMm !== undefined ? { bendMm: x.details.bendMm + by } : {}),
                  },
                },
          ),
        }
        expect(RANK[classify(compile(raised, 0, NO_OFFERS, RULES), d)]).toBeLessThanOrEqual(
          RANK[classify(compile(p, 0, NO_OFFERS, RULES), d)],
        )
      }),
      { numRuns: 600, seed: 7 },
    )
  })
  test('asking less never worsens a verdict', () => {
    fc.assert(
      fc.property(printers, demands, fc.integer({ min: 1, max: 60 }), (p, d, by) => {
        const less = {
          ...d,
          nozzleMinC: d.nozzleMinC === null ? null : d.nozzleMinC - by,
          dryMinC: d.dryMinC === null ? null : d.dryMinC - by,
        }
        const c = compile(p, 0, NO_OFFERS, RULES)
        const [was, is] = [classify(c, d), classify(c, less)]
        // what was a known no may turn into what nobody can tell
        if (is === 'cannot tell') expect(['runs', 'just']).not.toContain(was)
        else expect(RANK[is]).toBeLessThanOrEqual(RANK[was])
      }),
      { numRuns: 400, seed: 9 },
    )
  })
  test('a missing limit is never better than a known one that holds', () => {
    fc.assert(
      fc.property(printers, demands, fc.nat(200), (p, d, which) => {
        const i = which % p.parts.length
        if (p.parts[i]!.limitC === null) return
        const c = classify(
          compile({ ...p, parts: p.parts.map((x, k) => (k === i ? { ...x, limitC: null } : x)) }, 0, NO_OFFERS, RULES),
          d,
        )
        if (classify(compile(p, 0, NO_OFFERS, RULES), d) !== 'runs')
          expect(c === 'runs' && p.parts[i]!.role !== 'magnets').toBe(false)
      }),
      { numRuns: 400, seed: 11 },
    )
  })
  test("adding a part that bears a limit never raises its zone's ceiling", () => {
    fc.assert(
      fc.property(
        printers,
        fc.constantFrom('other hotend part', 'other bed part', 'other chamber part'),
        fc.integer({ min: 30, max: 600 }),
        (p, kind, limitC) => {
          const zone = kind.split(' ')[1] as 'hotend' | 'bed' | 'chamber'
          const before = ceilingOf(zone, p.parts, RULES).limitC,
            then = ceilingOf(zone, [...p.parts, { ...partOf(kind, 999, 0), limitC }], RULES).limitC
          expect(then!).toBeLessThanOrEqual(before ?? Infinity)
        },
      ),
      { numRuns: 200, seed: 13 },
    )
  })
})
