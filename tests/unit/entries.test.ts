/** What the forms and the doors accept, and what they say when they do not. */
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import type { z } from 'zod'
import { amountSchema, jobSchema, runSchema } from '#shared/entries/runs'
import { fittingSchema, changeSchema, partFields, printerSchema } from '#shared/entries/printers'
import { gaugeSchema, nozzleSchema, nozzleTypeSchema } from '#shared/entries/nozzles'
import { dryingSchema } from '#shared/entries/prepare'
import { endingSchema, strikeSchema } from '#shared/entries/log'
import { materialSchema, practiceSetFields } from '#shared/entries/materials'
import { pricesFields } from '#shared/entries/shop'
import { spoolEventSchema } from '#shared/entries/spools'
import { AIR_C } from '#core/drying'
import { canonical } from '../../server/records/entry/answers'

const at = '2026-11-20T12:00:00Z'
/** Messages by field; empty when it is taken. */
function says(schema: z.ZodType, value: unknown): Record<string, string> {
  const r = schema.safeParse(value)
  return r.success ? {} : Object.fromEntries(r.error.issues.map(i => [i.path.join('.'), i.message]))
}
const gauge = (more: object) => says(gaugeSchema, { nozzleId: 1, occurredAt: at, ...more })
const tool = { tool: 0, headId: 1, nozzleId: 1, spoolId: 1, amount: { kind: 'grams', grams: 10 } }
const run = (more: object) =>
  says(runSchema, { printerId: 1, name: 'x', endedAt: at, outcome: 'finished', tools: [tool], ...more })

describe('gauges', () => {
  test('pins, one-sided pins, a value, a tip, or only what was seen', () => {
    for (const ok of [
      { goMm: 0.43, noGoMm: 0.44 },
      { goMm: 0.43 },
      { noGoMm: 0.44 },
      { valueMm: 0.43, uMm: 0.005 },
      { tipMm: 12.4 },
      { shape: ['oval'] },
    ])
      expect(gauge(ok)).toEqual({})
  })
  test('what is missing or upside down is said at its field', () => {
    expect(gauge({})).toEqual({ goMm: 'Enter a pin, a value, a tip length or what you saw' })
    expect(gauge({ goMm: 0.44, noGoMm: 0.43 }).goMm).toContain('smaller than the no-go')
    expect(gauge({ goMm: 0.44, noGoMm: 0.44 }).goMm).toContain('smaller than the no-go')
    expect(gauge({ valueMm: 0.43 }).uMm).toContain('how sure')
    expect(gauge({ valueMm: 0.43, uMm: 0.01, goMm: 0.4 }).valueMm).toContain('not both')
    expect(gauge({ goMm: 43 }).goMm).toBe('At most 3 mm')
    expect(gauge({ goMm: NaN }).goMm).toBe('Enter a number')
    expect(gauge({ goMm: 0.4, occurredAt: '' }).occurredAt).toBe('Enter a date and time')
    expect(gauge({ goMm: 0.4, occurredAt: '0001-01-01T00:00:00Z' }).occurredAt).toContain('2000')
    expect(gauge({ shape: ['bent'] })['shape.0']).toBeDefined()
  })
  test('an empty pin mark is none', () =>
    expect(gaugeSchema.parse({ nozzleId: 1, occurredAt: at, goMm: 0.4, goPin: '' }).goPin).toBeNull())
})

describe('runs', () => {
  test('amounts', () => {
    expect(says(amountSchema, { kind: 'weights', beforeG: 500, afterG: 500 })).toEqual({
      afterG: 'The spool must weigh less after than before',
    })
    expect(says(amountSchema, { kind: 'grams', grams: 0 }).grams).toContain('At least')
    expect(says(amountSchema, { kind: 'metres', metres: null }).metres).toBe('Enter a number')
  })
  test('each field says its own', () => {
    expect(run({})).toEqual({})
    expect(run({ name: '  ' })).toEqual({ name: 'Enter a name' })
    expect(run({ tools: [] })).toEqual({ tools: 'At least one tool' })
    expect(run({ printerId: null })).toEqual({ printerId: 'Choose one' })
    expect(run({ tools: [{ ...tool, spoolId: null }] })).toEqual({
      'tools.0.spoolId': 'Choose the spool, or at least the material',
    })
    expect(run({ stopped: { kind: 'percent', value: 5 } })).toEqual({ stopped: 'Only a failed job stopped early' })
    expect(run({ outcome: 'failed', stopped: { kind: 'percent', value: 101 } })).toEqual({
      'stopped.value': 'At most 100 %',
    })
    expect(run({ hours: 0 })).toHaveProperty('hours')
    expect(run({ symptoms: ['sad'] })).toHaveProperty(['symptoms.0'])
  })
  test('a job needs a scan that extrudes, and 101 steps', () => {
    const job = {
      name: 'x.gcode',
      contentSha256: 'a'.repeat(64),
      sizeBytes: 1,
      scan: {
        filamentDiameterMm: 1.75,
        tools: [],
        totalExtrudedMm: 0,
        profile: null,
        maxSetpointC: { tools: {}, bed: null, chamber: null },
      },
    }
    expect(says(jobSchema, job)).toEqual({ 'scan.totalExtrudedMm': 'Nothing is extruded in this file' })
    expect(
      says(jobSchema, { ...job, scan: { ...job.scan, totalExtrudedMm: 5, maxSetpointC: undefined } }),
    ).toHaveProperty(['scan.maxSetpointC'])
    expect(says(jobSchema, { ...job, scan: { ...job.scan, totalExtrudedMm: 5, toolFlow: 5 } })).toHaveProperty([
      'scan.toolFlow',
    ])
    expect(says(jobSchema, { ...job, contentSha256: 'zz' })).toHaveProperty('contentSha256')
    expect(says(jobSchema, { ...job, scan: { ...job.scan, totalExtrudedMm: 5, profile: [] } })).toHaveProperty([
      'scan.profile',
    ])
  })
})

describe('the rest', () => {
  test('fittings, strikes and spools', () => {
    expect(says(fittingSchema, { kind: 'fit', nozzleId: 1, occurredAt: at })).toEqual({ headId: 'Choose the head' })
    expect(says(fittingSchema, { kind: 'retire', nozzleId: 1, occurredAt: at })).toEqual({
      reason: 'Say why it is retired',
    })
    expect(says(strikeSchema, { target: 'run', targetId: 1, reason: ' x ' })).toEqual({
      reason: 'Say why it is struck out',
    })
    expect(says(spoolEventSchema, { spoolId: 1, kind: 'weighed', occurredAt: at })).toHaveProperty('grossG')
    expect(says(spoolEventSchema, { spoolId: 1, kind: 'out', grossG: 5, occurredAt: at })).toHaveProperty('grossG')
  })
  // at 230 °C a page answered with a fault for good: the humidity formula ends at 200
  test('air hotter than the core reckons with is refused at its field, whatever door it comes by', () => {
    const hottest = `At most ${AIR_C[1]} °C`
    expect(says(spoolEventSchema, { spoolId: 1, kind: 'dried', hours: 4, atC: 230, occurredAt: at })).toEqual({
      atC: hottest,
    })
    expect(says(spoolEventSchema, { spoolId: 1, kind: 'dried', hours: 4, atC: AIR_C[1], occurredAt: at })).toEqual({})
    expect(says(dryingSchema, { spoolId: 1, dryerId: 1, setC: 230, plannedH: 4, occurredAt: at })).toEqual({
      setC: hottest,
    })
    expect(says(endingSchema, { target: 'drying', targetId: 1, actualC: 260, occurredAt: at })).toEqual({
      actualC: `${hottest} in a dryer`,
    })
    expect(says(endingSchema, { target: 'anneal', targetId: 1, actualC: 260, occurredAt: at })).toEqual({})
  })
  test('parts: a limit below the room, a short-time limit below the continuous one, unknown facts', () => {
    const part = { name: 'sensor', place: 'low', limitC: 300, basis: 'practice' }
    expect(says(partFields, part)).toEqual({})
    expect(says(partFields, { ...part, limitC: 15 })).toEqual({ limitC: 'At least 23 °C, which is room temperature' })
    expect(says(partFields, { ...part, limitC: null, name: '', basis: 'hearsay' })).toEqual({
      name: 'Enter a name',
      basis: 'Say where the value comes from',
    })
    expect(says(partFields, { ...part, shortC: 250 })).toHaveProperty('shortC')
    expect(says(partFields, { ...part, details: { thetaHigh: 3 } })).toHaveProperty(['details.thetaHigh'])
    expect(says(partFields, { ...part, details: { colour: 'red' } })).toHaveProperty('details')
  })
  test('a stack: unknown kinds and missing sensors are said where they are', () => {
    const stack = {
      name: 'One',
      kind: 'open frame',
      heads: [{ name: 'head' }],
      parts: [{ kind: 'bead thermistor, 10-bit reading', head: 0 }, { kind: 'bed heater' }],
    }
    expect(says(printerSchema, stack)).toEqual({})
    expect(says(printerSchema, { ...stack, parts: [...stack.parts, { kind: 'warp drive' }] })).toEqual({
      'parts.2.kind': 'There is no part kind “warp drive”; the catalogue lists them',
    })
    expect(says(printerSchema, { ...stack, parts: [stack.parts[1]] })).toEqual({
      'heads.0': 'head has no temperature sensor: nothing can be said of its temperature',
    })
    expect(says(printerSchema, { ...stack, parts: [{ ...stack.parts[0], limitC: 20 }] })['parts.0.limitC']).toMatch(
      /below the room's 23 °C/,
    )
    expect(says(changeSchema, { printerId: 1, text: 'nothing', occurredAt: at })).toHaveProperty('remove')
  })
  test('facts and practice sets: ranges, and what contradicts itself', () => {
    const m = { name: 'x', polymer: 'PA6', filler: 'none', fillerFraction: 0, abrasivity: 0.002, basis: 'practice' }
    const fact = (value: number) => ({ value, basis: 'data sheet' })
    expect(says(materialSchema, { ...m, facts: { nozzleMinC: fact(260), nozzleMaxC: fact(290) } })).toEqual({})
    expect(says(materialSchema, { ...m, facts: { nozzleMinC: fact(290), nozzleMaxC: fact(260) } })).toEqual({
      'facts.nozzleMaxC.value': 'Not below nozzle, lowest, 290 °C',
    })
    expect(says(materialSchema, { ...m, facts: { boreMinMm: fact(9) } })).toEqual({
      'facts.boreMinMm.value': 'At most 2 mm',
    })
    const set = { name: 'a', chamber: 'indifferent', dryMinC: 70, basis: 'practice' }
    expect(says(practiceSetFields, set)).toEqual({})
    expect(
      Object.keys(says(practiceSetFields, { ...set, chamber: 'needs', bedMinC: 100, bedMaxC: 80, dryMinC: null })),
    ).toEqual(['bedMaxC', 'chamberMinC', 'dryMinC'])
    expect(
      says(pricesFields, {
        prices: { 'hardened gears': { price: 25, minutes: 30 }, 'nozzle brass': { price: 3, minutes: 20 } },
      }),
    ).toEqual({})
    expect(says(pricesFields, { prices: { sundries: { price: 25, minutes: 30 } } })).toHaveProperty('prices')
  })
  test('materials', () => {
    const m = { name: 'x', polymer: 'PA6', filler: 'none', fillerFraction: 0, abrasivity: 0.002, basis: 'practice' }
    expect(says(materialSchema, m)).toEqual({})
    expect(says(materialSchema, { ...m, filler: 'carbon fibre' })).toHaveProperty('fillerFraction')
    expect(says(materialSchema, { ...m, fillerFraction: 0.2 })).toHaveProperty('fillerFraction')
  })
  test('nozzle types and nozzles', () => {
    const t = {
      name: 'x',
      material: 'brass',
      nominalBoreMm: 0.4,
      lengthMm: 12.5,
      coneDeg: 60,
      tipFlatMm: 1,
      landMm: 0.8,
      inletMm: 2,
      basis: 'practice',
    }
    expect(says(nozzleTypeSchema, t)).toEqual({})
    expect(
      Object.keys(
        says(nozzleTypeSchema, {
          ...t,
          tipFlatMm: 0.3,
          landMm: 9,
          lengthMm: 8,
          boreGrowthLimit: null,
          tipLossLimitMm: null,
        }),
      ),
    ).toEqual(['tipFlatMm', 'landMm', 'boreGrowthLimit'])
    const n = { tag: 'N-1', typeId: 1, receivedAt: at }
    expect(says(nozzleSchema, n)).toEqual({})
    expect(says(nozzleSchema, { ...n, wasUsed: true })).toEqual({}) // how worn it is need not be known
    expect(says(nozzleSchema, { ...n, wasUsed: true, receipt: { goMm: 0.42 } })).toEqual({})
    expect(says(nozzleSchema, { ...n, receipt: { goMm: 0.44, noGoMm: 0.43 } })).toHaveProperty(['receipt.goMm'])
    for (const tag of ['', '-1', 'a b', 'ü', 'x'.repeat(21)])
      expect(says(nozzleSchema, { ...n, tag }), tag).toHaveProperty('tag')
  })
  test('property: what is taken is taken again unchanged', () => {
    fc.assert(
      fc.property(
        fc.record({
          goMm: fc.double({ min: 0.05, max: 1.4, noNaN: true }),
          gap: fc.double({ min: 0.001, max: 1, noNaN: true }),
          note: fc.string({ maxLength: 40 }),
        }),
        v => {
          const once = gaugeSchema.parse({
            nozzleId: 1,
            occurredAt: at,
            goMm: v.goMm,
            noGoMm: v.goMm + v.gap,
            note: v.note,
          })
          expect(gaugeSchema.parse(once)).toEqual(once)
        },
      ),
    )
  })
  test('property: the canonical text knows no order of fields, and tells values apart', () => {
    fc.assert(
      fc.property(
        fc.dictionary(
          fc.string({ maxLength: 5 }),
          fc.oneof(fc.integer(), fc.string({ maxLength: 5 }), fc.boolean(), fc.constant(null)),
          { maxKeys: 6 },
        ),
        o => {
          expect(canonical(Object.fromEntries(Object.entries(o).reverse()))).toBe(canonical(o))
          expect(JSON.parse(canonical(o))).toEqual(o)
          expect(canonical({ ...o, more: 1 })).not.toBe(canonical({ ...o, more: 2 }))
        },
      ),
    )
  })
})
