/** Options and costs of swaps, and what they leave of the printer. */
import { describe, expect, test } from 'vitest'
import {
  after,
  compile,
  findChanges,
  NO_OFFERS,
  partOf,
  START_RULES,
  type Offers,
  type Rules,
  type Swap,
} from '#core/limits'
import { asks, nozzle, printer } from './limits-support'

const nylon = asks('PA6', 'carbon fibre')
const lined = () =>
  printer('open frame', nozzle('brass', 0.4), {
    'no ventilation': 'particle and carbon filter',
    'filament dryer, 55': 'filament dryer, 70',
  })
const options = (c: ReturnType<typeof compile>, role: string) => c.groups.find(g => g.role === role)!.options
const texts = (o: readonly { swap: Swap | null }[]) => o.map(x => x.swap?.text ?? 'as it is')

describe('options', () => {
  test('cheapest first, what is fitted before all; one that is fitted already is not offered', () => {
    const c = compile(lined(), 0, NO_OFFERS, START_RULES)
    for (const g of c.groups) {
      expect(g.options[0]!.swap).toBeNull()
      const costs = g.options.map(o => o.cost)
      expect(costs).toEqual([...costs].sort((a, b) => a - b))
    }
    expect(texts(options(c, 'gears'))).toEqual(['as it is', 'Replace plain steel gears by hardened gears'])
    const hard = compile(
      printer('open frame', undefined, { 'plain steel gears': 'hardened gears' }),
      0,
      NO_OFFERS,
      START_RULES,
    )
    expect(texts(options(hard, 'gears'))).toEqual(['as it is'])
  })
  test('a sock can be left off, a dryer is added and none is taken away', () => {
    const c = compile(lined(), 0, NO_OFFERS, START_RULES)
    expect(texts(options(c, 'sock'))).toContain('Take the sock off, cold')
    for (const o of options(c, 'dryer')) expect(o.result.map(p => p.kind)).toContain('filament dryer, 70')
  })
  test('the same nozzle is offered once, from the shelf before from the shop', () => {
    const spare = [
      nozzle('hardened steel', 0.6, { id: 3, tag: 'N-003' }),
      nozzle('hardened steel', 0.6, { id: 4, tag: 'N-004' }),
    ]
    const c = compile(lined(), 0, { ...NO_OFFERS, nozzles: spare }, START_RULES)
    expect(texts(c.nozzles).filter(t => t.includes('hardened steel 0.6'))).toEqual([
      'Fit a hardened steel 0.6 nozzle (N-003, on the shelf)',
    ])
  })
  test('an open frame can be enclosed, an enclosure opened, an opened one closed', () => {
    expect(texts(compile(lined(), 0, NO_OFFERS, START_RULES).air)).toEqual([
      'as it is',
      'Build an enclosure kit around it',
      'Build an enclosure kit around it, with a chamber heater kit',
    ])
    expect(texts(compile(printer('bed-heated enclosure'), 0, NO_OFFERS, START_RULES).air)).toEqual([
      'as it is',
      'Take the lid off',
      'Raise the lid on a riser',
      'Fit a regulated vent in the lid',
      'Fit a chamber heater kit',
    ])
    expect(
      texts(compile(printer('bed-heated enclosure', undefined, { lid: null }), 0, NO_OFFERS, START_RULES).air),
    ).toEqual(['as it is', 'Put the lid on', 'Raise the lid on a riser', 'Fit a regulated vent in the lid'])
  })
})

describe('cost', () => {
  const rules = (labourPerHour: number): Rules => ({ ...START_RULES, labourPerHour })
  test('is price and time at the labour rate', () => {
    for (const labour of [0, 40, 200]) {
      const f = findChanges(compile(lined(), 0, NO_OFFERS, rules(labour)), [nylon])!
      expect(f.cost).toBeCloseTo(f.price + (f.minutes / 60) * labour, 9)
    }
  })
  test('dear labour prefers what is quick, cheap labour what is cheap', () => {
    const quick: Offers = {
      ...NO_OFFERS,
      prices: {
        'platinum film sensor': { price: 30, minutes: 300 },
        'type K thermocouple': { price: 200, minutes: 10 },
      },
    }
    const p = printer('bed-heated enclosure', undefined, {
      'silicone sock': null,
      'firmware ceiling': 'firmware ceiling 350',
    })
    const job = { ...asks('PLA'), nozzleMinC: 320 }
    const sensor = (labour: number) =>
      findChanges(compile(p, 0, quick, rules(labour)), [job])!.swaps.find(s => s.role === 'sensor')!.text
    expect(sensor(1)).toContain('platinum film sensor')
    expect(sensor(200)).toContain('type K thermocouple')
  })
  test('what is on the shelf costs its minutes only', () => {
    const offers: Offers = { ...NO_OFFERS, shelf: [partOf('hardened gears', 1), partOf('all-metal heat break', 2)] }
    const f = findChanges(compile(lined(), 0, offers, START_RULES), [nylon])!
    expect(f.price).toBe(20) // the nozzle alone is bought
    expect(f.swaps.filter(s => s.fromShelf)).toHaveLength(2)
  })
})

describe('after', () => {
  test('leaves other heads and the rest of the printer as they are', () => {
    const one = lined()
    const two = {
      ...one,
      heads: [...one.heads, { id: 9, name: 'other', nozzle: nozzle('brass', 0.4, { headId: 9 }) }],
      parts: [...one.parts, { ...partOf('PTFE liner to the nozzle', 'l9', 9) }],
    }
    const swaps = findChanges(compile(two, 0, NO_OFFERS, START_RULES), [nylon])!.swaps
    const then = after(two, 0, swaps)
    expect(then.heads[1]).toEqual(two.heads[1])
    expect(then.parts.filter(p => p.headId === 9)).toEqual(two.parts.filter(p => p.headId === 9))
    expect(then.parts.filter(p => p.role === 'liner' && p.headId === 0)).toEqual([])
    expect(two.parts.some(p => p.role === 'liner' && p.headId === 0)).toBe(true)
  })
  test('no swaps change nothing', () => {
    const p = lined()
    expect(after(p, 0, [])).toEqual(p)
  })
})
