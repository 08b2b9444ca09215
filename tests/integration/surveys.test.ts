/** Surveys as the records keep them: what the limits take of them, when they stop to hold, and whose degrees count. */
import { beforeEach, describe, expect, test } from 'vitest'
import { chamberAir, stackOf, START_RULES } from '#core/limits'
import { strikeSchema, type StrikeEntry } from '#shared/entries/log'
import { cutOutTestSchema } from '#shared/entries/plans'
import { changeSchema } from '#shared/entries/printers'
import { referenceFields, sensorCheckSchema } from '#shared/entries/sensors'
import type { Connection } from '../../server/db/client'
import { saveCutOutTest, savePlan } from '../../server/records/chambers/plans'
import { chambersPage, lastSurveys, saveSurvey } from '../../server/records/chambers/surveys'
import { saveStrike } from '../../server/records/entry/strikes'
import { addPrinter, saveChange } from '../../server/records/printers/stack-change'
import { listStacks } from '../../server/records/printers/stack-read'
import { saveSensorCheck } from '../../server/records/sensors/checks'
import { addReference } from '../../server/records/sensors/references'
import { ago, freshDatabase, planEntry, printerEntry, refusal, smallShop, surveyEntry } from './support'

const { db } = await freshDatabase()
await smallShop(db)
const tx = <T>(work: (c: Connection) => Promise<T>) => db.transaction(work)
const probe = { kind: 'probe', readsIn: '°C', certificateUC: 0.3, meter: 0.1 }
const { id: probeId } = await tx(c => addReference(c, referenceFields.parse({ name: 'Probe', is: probe }), 1))

let printerId = 0
let n = 0
beforeEach(async () => {
  printerId = (await tx(c => addPrinter(c, printerEntry(`Printer ${++n}`), 1))).id
})
const survey = (temps: [number, number], more: object = {}) =>
  tx(c => saveSurvey(c, surveyEntry(printerId, temps, more), 1))
const strike = (target: StrikeEntry['target'], id: number) =>
  tx(c => saveStrike(c, strikeSchema.parse({ target, targetId: id, reason: 'for the test' }), 1))
const printer = async () => (await listStacks(db, [printerId]))[0]!
const airAt = async (bedC: number) => {
  const p = await printer()
  return chamberAir(stackOf(p, p.heads[0]!.id), { bedC, chamberC: null }, START_RULES)
}
const change = async (more: object) =>
  tx(c => saveChange(c, changeSchema.parse({ printerId, text: 'changed it', occurredAt: ago(0.1), ...more }), 1))
const line = async () => (await chambersPage(db)).surveys.find(s => s.printerId === printerId)!

test('a survey is what the limits go by, until it is struck out', async () => {
  const before = (await airAt(100)).high!
  const { id, places, before: was, after } = await survey([77, 46.1])
  expect(places.map(p => [p.place, p.value])).toEqual([
    ['low', expect.closeTo(0.7, 2)],
    ['high', expect.closeTo(0.3, 2)],
  ])
  expect((await airAt(100)).high!.c).toBeCloseTo(46.1, 0)
  expect((await airAt(60)).low!.c).toBeCloseTo(23 + 0.7 * 37, 0)
  expect((await airAt(60)).low!.from).toMatch(/^its survey of /)
  // the belt near the top stands in less heat than practice said: the bed may be hotter
  const bed = (limits: typeof was) => limits.find(l => l.zone === 'bed')!.limitC
  expect(bed(after)).not.toBe(bed(was))
  await strike('survey', id)
  expect((await airAt(100)).high).toEqual(before)
  expect((await line()).struck).toMatchObject({ reason: 'for the test' })
})

test('a change of what makes the air ends it, and striking that change brings it back', async () => {
  await survey([77, 46.1])
  const { id: changeId } = await change({ add: [{ kind: 'fans', name: 'stirring fan' }] })
  expect((await line()).changed).toEqual([expect.stringMatching(/^stirring fan, \d+ \w{3} \d{4}$/)])
  expect((await airAt(100)).high!.from).toBe('practice')
  await strike('stack change', changeId)
  expect((await line()).changed).toEqual([])
  expect((await airAt(100)).high!.from).toMatch(/survey/)
})
test('a part that makes no air changes nothing, nor does a lid taken off and put back', async () => {
  await survey([77, 46.1])
  await change({ add: [{ kind: 'silicone sock', headId: (await printer()).heads[0]!.id }] })
  expect((await line()).changed).toEqual([])
})

test('what is due of it goes by the lid as it is now, as the certificate does', async () => {
  const days = async () => (await lastSurveys(db)).find(s => s.printer === `Printer ${n}`)!.days
  const state = (more: object) => ({ state: { opening: 'shut', fan: null, gapMm: 0, ...more } })
  expect(await days()).toBeNull()
  await survey([77, 46.1], { ...state({ opening: 'off' }), occurredAt: ago(3) })
  await survey([77, 46.1], { ...state({ gapMm: 40 }), occurredAt: ago(2) })
  expect(await days()).toBeNull()
  const { id } = await survey([77, 46.1], { ...state({}), occurredAt: ago(1) })
  expect(await days()).toBeCloseTo(1, 2)
  await strike('survey', id)
  expect(await days()).toBeNull()
})

test('raw numbers stay; a check of the bed is reckoned on both sides', async () => {
  await survey([77, 46.1])
  const shown = (await airAt(100)).high!.c
  await tx(c =>
    saveSensorCheck(
      c,
      sensorCheckSchema.parse({
        printerId,
        zone: 'bed',
        referenceId: probeId,
        placement: 'in the bed',
        points: [
          { shownC: 60, reading: 66 },
          { shownC: 110, reading: 116 },
        ],
        allowed: { by: 'data sheet', plusMinusC: 10 },
        occurredAt: ago(0),
      }),
      1,
    ),
  )
  const s = await line()
  expect([s.bedC, s.bedTrueC]).toEqual([100, expect.closeTo(106, 3)])
  expect(s.correctedBy).toMatch(/^its check of/)
  expect(s.checkThen).toBeNull()
  // at the setting it was read at nothing moves; at another both sides are true degrees
  expect((await airAt(100)).high!.c).toBeCloseTo(shown, 2)
  expect((await airAt(60)).high!.c).toBeCloseTo(23 + ((46.1 - 23) / 83) * 43, 0)
})

describe('what is no survey is refused at its field', () => {
  const fieldOf = async (more: object) => (await refusal(survey([70, 60], more))).errors?.[0]?.field
  test.each([
    ['bedC', { bedC: 25 }],
    ['chamberSetC', { chamberSetC: 60 }],
    ['roomC', { roomC: [null, null, null, null, null, null] }],
    ['timesS.2', { timesS: [0, 300, 200, 900, 1200, 1500] }],
    ['roomC', { roomC: [23, 23] }],
    ['occurredAt', { occurredAt: ago(-5) }],
  ])('%s', async (field, more) => expect(await fieldOf(more)).toBe(field))
  test('a printer without an enclosure', async () => {
    const open = printerEntry('Open')
    const { id } = await tx(c =>
      addPrinter(c, { ...open, parts: open.parts.filter(p => p.kind !== 'enclosure' && p.kind !== 'lid') }, 1),
    )
    expect((await refusal(survey([70, 60], { printerId: id }))).errors?.[0]?.field).toBe('printerId')
  })
})

test('one that still rises is asked about; kept, it counts for nothing', async () => {
  const rising = { name: 'P1', place: 'low', xMm: 1, yMm: 1, zMm: 40, readC: [50, 53, 56, 59, 62, 65] }
  const asked = await refusal(survey([70, 60], { probes: [rising] }))
  expect(JSON.stringify(asked)).toContain('P1: rising')
  const { places } = await survey([70, 60], { probes: [rising], confirmed: ['not-steady'] })
  expect(places).toEqual([])
  expect((await airAt(100)).low!.from).toBe('practice')
  // and hides none that does: an earlier one of the same state still counts
  await survey([70, 60], { occurredAt: ago(0.5) })
  expect((await airAt(100)).low!.from).toMatch(/survey/)
})

test('the newest plan of a name counts; the older stays, and struck out it makes room for the one before', async () => {
  const plans = async () => (await chambersPage(db)).plans.filter(p => p.printerId === printerId)
  await tx(c => savePlan(c, planEntry(printerId, 'Lined'), 1))
  const { id } = await tx(c => savePlan(c, planEntry(printerId, 'lined', { ventLMin: 40 }), 1))
  expect((await plans()).map(p => [p.name, p.spec.ventLMin])).toEqual([['lined', 40]])
  await strike('enclosure plan', id)
  expect((await plans()).map(p => [p.name, p.spec.ventLMin])).toEqual([['Lined', 0]])
})
test('a plan with an air gap outside is refused at its wall, by the core’s own rule', () => {
  const walls = [{ name: 'front', face: 'side', areaM2: 0.16, layers: [{ material: 'air gap', mm: 20 }] }]
  expect(() => planEntry(printerId, 'Lined', { walls })).toThrow(/air between two layers/)
})
test('tests of cut-outs, the latest first, those struck out among them', async () => {
  const cut = (tripped: boolean, hours: number) =>
    tx(c =>
      saveCutOutTest(
        c,
        cutOutTestSchema.parse({ printerId, guard: 'bed thermal cut-out', tripped, occurredAt: ago(hours) }),
        1,
      ),
    )
  await cut(true, 3)
  const { id } = await cut(false, 2)
  await strike('cut-out test', id)
  const tests = (await chambersPage(db)).cutOutTests.filter(t => t.printerId === printerId)
  expect(tests.map(t => [t.tripped, t.struck?.reason ?? null])).toEqual([
    [false, 'for the test'],
    [true, null],
  ])
})
