/** Procedures: order and ticks, waits, what a swap says, and which nozzle is taken. Temperatures °C, lengths mm. */
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  byHand,
  commissionFacts,
  commissionSteps,
  FRESH_MS,
  missingBefore,
  NEAR_C,
  progress,
  rankNozzles,
  swapSteps,
  swapZ,
  unproved,
  valueFaults,
  waitState,
  waitWords,
  type Candidate,
  type Step,
  type SwapFacts,
} from '#core/procedures'
import { START_RULES } from '#core/limits'
import { InputError } from '#core/numeric'
import { asks, nozzle, printer } from './limits-support'

const step = (key: string, more: Partial<Step> = {}): Step => ({
  key,
  title: key,
  says: [],
  hazards: [],
  fields: [],
  wait: null,
  proof: null,
  after: null,
  ...more,
})
const did = (...keys: string[]) => keys.map(key => ({ step: key, values: {} }))

describe('steps and ticks', () => {
  const steps = [step('a'), step('b'), step('c', { after: ['a'] }), step('d')]
  test('a step waits for all before it, or for those it names', () => {
    expect(missingBefore(steps, [], 'b').map(s => s.key)).toEqual(['a'])
    expect(missingBefore(steps, did('a'), 'd').map(s => s.key)).toEqual(['b', 'c'])
    expect(progress(steps, did('a'))).toMatchObject({ done: 1, of: 4, open: [{ key: 'b' }, { key: 'c' }] })
    expect(progress(steps, did('a', 'b', 'c', 'd', 'of another'))).toMatchObject({ done: 4, missing: [] })
  })
  test('whatever is ticked in an order that is allowed, something is open until all is done', () => {
    fc.assert(
      fc.property(fc.infiniteStream(fc.nat(10)), picks => {
        const ticked = did()
        for (const pick of picks) {
          const { open, missing } = progress(steps, ticked)
          if (missing.length === 0) break
          expect(open.length).toBeGreaterThan(0)
          ticked.push(...did(open[pick % open.length]!.key))
        }
        expect(ticked.length).toBe(steps.length)
      }),
    )
  })
  test('what is entered is held to its fields', () => {
    const asked = step('z', {
      fields: [
        { key: 'mm', label: 'Z', help: '', required: true, kind: 'number', unit: 'mm', low: -5, high: 5 },
        { key: 'way', label: 'Way', help: '', required: false, kind: 'choice', choices: [{ value: 'u', text: 'up' }] },
      ],
    })
    const of = (values: Record<string, string | number | null>) => valueFaults(asked, values).map(f => f.field)
    expect(of({ mm: 1 })).toEqual([])
    expect(of({})).toEqual(['mm'])
    expect(of({ mm: NaN })).toEqual(['mm'])
    expect(of({ mm: 6, way: 'down', other: 'x' })).toEqual(['mm', 'way', 'other'])
    expect(of({ mm: '1' })).toEqual(['mm'])
  })
})

describe('waiting for a heater', () => {
  const wait = { heater: 'nozzle' as const, head: 0, setC: 245 }
  test('a value older than 10 s never completes a wait, and one from a clock that is as far ahead neither', () => {
    expect(waitState(wait, null, 0).kind).toBe('not known')
    expect(waitState(wait, { c: 245, atMs: 0 }, FRESH_MS).kind).toBe('there')
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 500, noNaN: true }),
        fc.integer({ min: FRESH_MS + 1, max: 1e9 }),
        (c, age) => {
          expect(waitState(wait, { c, atMs: 1e10 - age }, 1e10).kind).toBe('not known')
          expect(waitState(wait, { c, atMs: 1e10 + age }, 1e10).kind).toBe('not known')
        },
      ),
    )
  })
  test('there is near what is set: not colder, and not so hot that the step says something else', () => {
    expect(byHand(wait, 245 - NEAR_C).kind).toBe('there')
    expect(byHand(wait, 245 - NEAR_C - 0.1).kind).toBe('cold')
    expect(byHand(wait, 290).kind).toBe('too hot')
    expect(waitWords(wait, byHand(wait, 212.4))).toBe('wait: 212 of 245 °C')
    expect(() => byHand(wait, NaN)).toThrow(InputError)
  })
  test('nothing it says invites a hand', () => {
    const says = [0, 30, 60, 200, 243, 300].map(c => waitWords(wait, byHand(wait, c)))
    for (const s of [...says, waitWords(wait, { kind: 'not known' })]) expect(s).not.toMatch(/touch|safe|cool enough/i)
  })
})

const part = (tag: string, lengthMm: number) => ({
  id: 1,
  tag,
  words: 'hardened steel 0.4',
  lengthMm,
  lengthBy: 'type' as const,
  insert: false,
  plated: false,
  brittle: false,
})
const facts = (more: Partial<SwapFacts> = {}): SwapFacts => ({
  place: 'Ribble',
  old: part('N-014', 12.5),
  fresh: part('N-032', 13),
  head: 0,
  turn: { setC: 245, material: 'PA6-CF20' },
  resnug: { setC: 280, job: 'PA6-CF20' },
  torque: { newtonMetre: 1.36, by: 'block thread' },
  sock: true,
  liner: false,
  materials: [{ id: 3, name: 'PA6-CF20', purgeC: 250 }],
  holds: 'PA6-CF20',
  zWay: null,
  zMm: null,
  ...more,
})
const told = (s: Step) => [s.title, ...s.says, ...s.hazards.flatMap(h => [h.hazard, h.what])].join(' ')

describe('a swap, step by step (common practice, no source)', () => {
  const steps = swapSteps(facts())
  const at = (key: string) => steps.findIndex(s => s.key === key)
  test('Z up first, the axis blocked, gloves on, hot, still, and only then a hand at it', () => {
    const order = [
      'take',
      'raise',
      'prop',
      'protect',
      'heat',
      'still',
      'out',
      'in',
      'tight',
      'resnug',
      'leaks',
      'clear',
      'z',
    ]
    expect(order.map(at)).toEqual([...order.map(at)].sort((a, b) => a - b))
    expect(at('take')).toBe(0)
    expect(at('first layer')).toBe(steps.length - 1)
  })
  test('each says its hazard where it is', () => {
    const all = steps.map(told).join('\n')
    expect(told(steps[at('protect')]!)).toMatch(/Nitrile.*melt/)
    expect(told(steps[at('heat')]!)).toMatch(/245 °C.*thermistor reads cold/s)
    expect(told(steps[at('out')]!)).toMatch(/Hold the block.*Anticlockwise, seen from below.*leads/s)
    expect(told(steps[at('in')]!)).toMatch(/Never by bare hand.*gap left between its flange and the block/s)
    expect(told(steps[at('tight')]!)).toMatch(/at most 1\.3 N·m/)
    expect(all).not.toMatch(/cool enough|safe to touch/i)
    const waits = steps.flatMap(s => (s.wait ? [[s.key, s.wait.setC]] : []))
    expect(waits).toEqual([
      ['heat', 245],
      ['out', 245],
      ['in', 245],
      ['tight', 245],
      ['resnug', 280],
    ])
  })
  test('insert, plating, brittle bodies and an empty head each have their own words', () => {
    const of = (more: object) =>
      swapSteps(facts({ fresh: { ...part('N-1', 12.5), ...more } }))
        .map(told)
        .join(' ')
    expect(of({ insert: true })).toMatch(/no clamp and no blow/)
    expect(of({ plated: true })).toMatch(/no wire brush/)
    expect(of({ brittle: true })).toMatch(/do not drop it/)
    expect(swapSteps(facts({ old: null })).some(s => s.key === 'out')).toBe(false)
    expect(swapSteps(facts({ resnug: null })).some(s => s.key === 'resnug')).toBe(false)
  })
  test('which way Z counts is asked once for each printer', () => {
    const asked = (f: SwapFacts) => swapSteps(f).flatMap(s => s.fields.map(x => x.key))
    expect(asked(facts())).toContain('zWay')
    expect(asked(facts({ zWay: 'larger is lower' }))).not.toContain('zWay')
  })
})

describe('Z after a swap', () => {
  test('what was measured at the bench counts before what is on record', () => {
    expect(swapZ(facts(), {}).says[0]).toMatch(/must stop 0\.50 mm higher.*by their types, not measured/)
    const f = facts({ old: { ...part('N-014', 12.42), lengthBy: 'gauge' } })
    expect(swapZ(f, { lengthMm: 12.92 }).says[0]).toBe(
      'The new one is 0.50 mm longer: the head must stop 0.50 mm higher.',
    )
    expect(swapZ(facts({ old: null }), {}).says[0]).toMatch(/not known/)
  })
  test('the first approach stops 1 mm too high, whichever way the number counts', () => {
    expect(swapZ(facts(), { zWay: 'larger is higher', zBeforeMm: -1.2 })).toMatchObject({
      expectedMm: -0.7,
      startMm: 0.3,
    })
    expect(swapZ(facts(), { zWay: 'larger is lower', zBeforeMm: 1.2 })).toMatchObject({
      expectedMm: 0.7,
      startMm: -0.3,
    })
    expect(swapZ(facts({ zWay: 'larger is lower' }), { zBeforeMm: 1.2 }).startMm).toBe(-0.3)
    expect(swapZ(facts(), { zBeforeMm: 1.2 }).startMm).toBeNull()
  })
  test('a number that lengths cannot explain is asked about', () => {
    const z = { zWay: 'larger is higher', zBeforeMm: -1.2 }
    expect(swapZ(facts(), { ...z, zAfterMm: -0.75 }).far).toBeNull()
    expect(swapZ(facts(), { ...z, zAfterMm: -1.7 }).far).toMatch(/near -0\.7; -1\.7 is 1\.00 mm off/)
  })
})

describe('which nozzle to take', () => {
  const P = printer('bed-heated enclosure', nozzle('hardened steel', 0.4))
  const job = { name: 'PA6-CF', demands: [asks('PA6', 'carbon fibre')], fibreG: 100 }
  const of = (tag: string, material: Parameters<typeof nozzle>[0], boreMm: number, more: Partial<Candidate> = {}) => ({
    nozzle: nozzle(material, boreMm, { tag }),
    left: { low80G: 300, medianG: 500 },
    pastChance: 0.01,
    worn: null,
    ...more,
  })
  const rank = (...c: Candidate[]) => rankNozzles(P, P.heads[0]!.id, 0.6, c, [job], START_RULES)
  test('hard enough, of the bore that the files were made for, with enough left', () => {
    const ranked = rank(
      of('N-1', 'brass', 0.6),
      of('N-2', 'hardened steel', 0.4),
      of('N-3', 'hardened steel', 0.6, { left: { low80G: 20, medianG: 60 } }),
      of('N-4', 'hardened steel', 0.6),
      of('N-5', 'tungsten carbide', 0.6, { worn: 'last gauge found: chipped' }),
    )
    expect(ranked.map(c => c.nozzle.tag)).toEqual(['N-4', 'N-3', 'N-2', 'N-1', 'N-5'])
    expect(ranked.map(c => c.good)).toEqual([true, false, false, false, false])
    expect(ranked[0]!.says[0]).toBe('Good for PA6-CF.')
    expect(ranked[1]!.says.join()).toMatch(/Perhaps 20\.0 g of fibre left; the coming jobs take 100 g/)
    expect(ranked[2]!.says.join()).toMatch(/Files for 0\.6 mm have to be made again for 0\.4/)
  })
  test('of a shelf with many alike each is told what it would be told by itself', () => {
    const one = fc.record({
      material: fc.constantFrom('brass' as const, 'hardened steel' as const, 'ruby tip' as const),
      bore: fc.constantFrom(0.4, 0.6),
    })
    fc.assert(
      fc.property(fc.array(one, { minLength: 1, maxLength: 8 }), shelf => {
        const alike = shelf.map(({ material, bore }, i) => of(`N-${i}`, material, bore))
        // a length of its own makes each its own kind, and changes nothing that a nozzle is told
        const apart = alike.map((c, i) => ({ ...c, nozzle: { ...c.nozzle, lengthMm: c.nozzle.lengthMm + i * 1e-6 } }))
        const told = (c: Candidate[]) => rank(...c).map(({ nozzle: n, good, says }) => ({ tag: n.tag, good, says }))
        expect(told(alike)).toEqual(told(apart))
      }),
      { numRuns: 40 },
    )
  })
  test('nobody knows what comes: the bore and what is left decide, and nothing is said to be good for a job', () => {
    const [first] = rankNozzles(P, P.heads[0]!.id, 0.6, [of('N-4', 'hardened steel', 0.6)], [], START_RULES)
    expect(first).toMatchObject({ good: true, says: ['About 0.50 kg of fibre left.'] })
  })
})

describe('commissioning (common practice, no source)', () => {
  const of = (key: string) => commissionFacts(printer(key), START_RULES)
  const keys = (key: string) => commissionSteps(of(key)).map(s => s.key)
  test('what the stack has is what it asks', () => {
    const open = keys('open frame')
    const hot = commissionSteps(of('hot machine'))
    expect(open).not.toContain('warm-up')
    expect(open).not.toContain('guard chamber heater cut-out')
    expect(hot.map(s => s.key)).toEqual(expect.arrayContaining(['warm-up', 'guard chamber heater cut-out', 'sensor 0']))
    const wiring = hot.find(s => s.key === 'wiring')!
    expect(wiring.says.join()).toMatch(/mains voltage: .*licensed electrician/)
    expect(wiring.fields.map(f => f.key)).toEqual(['wiredBy', 'earthOhm'])
  })
  test('nothing is heated before locks, wiring and extraction are done, and never above a limit', () => {
    const steps = commissionSteps(of('bed-heated enclosure'))
    const before = missingBefore(steps, [], 'heat 0').map(s => s.key)
    expect(before).toEqual(['unpack', 'locks', 'path', 'wiring', 'air', 'level', 'probe'])
    // an electrician that is waited for holds up no tube
    expect(missingBefore(steps, did('unpack', 'locks'), 'path')).toEqual([])
    for (const s of steps) if (s.wait?.heater === 'nozzle') expect(s.wait.setC).toBeLessThanOrEqual(200)
  })
  test('nozzle, cut-outs, sensor, chamber and the hot bed are proved by their records', () => {
    const hot = of('hot machine')
    const bare = { ...hot, heads: hot.heads.map(h => ({ ...h, nozzle: null })) }
    const proofs = commissionSteps(bare).flatMap(s => (s.proof ? [s.proof] : []))
    expect([...new Set(proofs.map(p => p.of))]).toEqual(['nozzle', 'cut-out test', 'sensor check', 'chamber', 'level'])
    for (const p of proofs) expect(unproved(p)).toMatch(/^No |not measured/)
  })
})
