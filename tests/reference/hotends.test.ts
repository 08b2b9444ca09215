/**
 * Hotends against what is known of stacks: brute force over the shelf, and what no exchange may do. Facts of the trade:
 * common practice, no source; film sensors to 500 °C: IEC 60751, class B.
 */
import fc from 'fast-check'
import { expect, test } from 'vitest'
import {
  ceilings,
  classify,
  compile,
  findChanges,
  HOTEND_ROLES,
  hotendInstead,
  hotendMinutes,
  isHotendRole,
  kindsOf,
  NO_OFFERS,
  partOf,
  START_RULES,
  withHotend,
  type Hotend,
  type Printer,
} from '#core/limits'
import { asks, nozzle, printer } from '../unit/limits-support'
import { demands, printers } from './any-printer'

const hotends: fc.Arbitrary<Hotend> = fc
  .record({
    picks: fc.array(fc.nat(99), { minLength: HOTEND_ROLES.length, maxLength: HOTEND_ROLES.length }),
    material: fc.constantFrom('brass', 'hardened steel', 'tungsten carbide') as fc.Arbitrary<'brass'>,
    boreMm: fc.constantFrom(0.4, 0.6),
    empty: fc.boolean(),
    id: fc.integer({ min: 1000, max: 9000 }),
  })
  .map(({ picks, material, boreMm, empty, id }) => ({
    id,
    tag: `H-${id}`,
    parts: HOTEND_ROLES.flatMap((role, i) => {
      const kinds = kindsOf(role)
      const pick = picks[i]!
      return pick < 15 || kinds.length === 0 ? [] : [partOf(kinds[pick % kinds.length]!.key, id * 10 + i, null)]
    }),
    nozzle: empty ? null : nozzle(material, boreMm),
  }))
const headOf = (p: Printer) => p.heads[0]!.id
const runs = { numRuns: 60 }

test('what is told is what brute force over the shelf finds: the soonest, and sooner than parts', () => {
  fc.assert(
    fc.property(printers, demands, fc.array(hotends, { maxLength: 3 }), (p, demand, shelf) => {
      const headId = headOf(p)
      const minutes = (x: Printer) => findChanges(compile(x, headId, NO_OFFERS, START_RULES), [demand])
      const parts = minutes(p)
      const touches = parts === null || parts.swaps.some(s => s.role === 'nozzle' || isHotendRole(s.role))
      const each = shelf.flatMap(h => {
        const found = minutes(withHotend(p, headId, h))
        if (found === null || (found.unknown && !parts?.unknown)) return []
        return [hotendMinutes(p, headId, h) + found.minutes]
      })
      const soonest = Math.min(Infinity, ...each)
      const expected = touches && soonest < (parts?.minutes ?? Infinity) ? soonest : null
      const told = hotendInstead(p, headId, demand, NO_OFFERS, START_RULES, shelf)
      expect(told?.minutes ?? null).toBe(expected)
      // and with it and what is told beside it, it runs
      if (told === null) return
      const then = withHotend(p, headId, told.hotend)
      if (told.swaps.length === 0)
        expect(['runs', 'just', 'cannot tell']).toContain(
          classify(compile(then, headId, NO_OFFERS, START_RULES), demand),
        )
    }),
    runs,
  )
})

test('an exchange and back is nothing but a sensor that nobody has checked', () => {
  fc.assert(
    fc.property(printers, hotends, (p, h) => {
      const headId = headOf(p)
      const own: Hotend = {
        id: 1,
        tag: 'H-1',
        parts: p.parts.filter(x => x.headId === headId && isHotendRole(x.role)),
        nozzle: p.heads[0]!.nozzle,
      }
      const back = withHotend(withHotend(p, headId, h), headId, own)
      const unchecked = p.sensors && { ...p, sensors: { ...p.sensors, heads: { ...p.sensors.heads, [headId]: null } } }
      const of = (x: Printer) =>
        ceilings(x, START_RULES)
          .map(c => [c.zone, c.limitC, c.fineC, c.shortC])
          .sort()
      expect(of(back)).toEqual(of(unchecked ?? p))
    }),
    runs,
  )
})

test('bed and chamber are what they were, whatever hotend is on', () => {
  fc.assert(
    fc.property(printers, hotends, (p, h) => {
      const of = (x: Printer) => ceilings(x, START_RULES).filter(c => c.zone !== 'hotend')
      expect(of(withHotend(p, headOf(p), h))).toEqual(of(p))
    }),
    runs,
  )
})

test('above 300 °C another sensor is not enough: the firmware has to allow it as well', () => {
  const p = printer('bed-heated enclosure', nozzle('hardened steel', 0.6))
  const film: Hotend = {
    id: 1,
    tag: 'H-1',
    parts: [
      'high-temperature cartridge heater',
      'platinum film sensor',
      'all-metal heat break',
      'plated copper block',
    ].map((k, i) => partOf(k, 800 + i, null)),
    nozzle: nozzle('hardened steel', 0.6),
  }
  const peek = asks('PEEK', 'carbon fibre')
  const lines = (x: Printer) => findChanges(compile(x, 0, NO_OFFERS, START_RULES), [peek])
  const before = lines(p)
  const then = lines(withHotend(p, 0, film))
  const roles = (f: typeof before) => f?.swaps.map(s => s.role) ?? []
  expect(roles(before)).toEqual(expect.arrayContaining(['sensor', 'firmware']))
  expect(roles(then)).toContain('firmware')
  expect(roles(then)).not.toContain('sensor')
})
