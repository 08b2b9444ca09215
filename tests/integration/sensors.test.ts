/* eslint-disable max-lines -- one shop, from check to check */
/** Sensors and their checks as the records keep them, and that every station asks the same of them. */
import { describe, expect, test } from 'vitest'
import {
  checkStack,
  demandOfJob,
  marginOf,
  settlesAt,
  soakRefusal,
  stackOf,
  startWindow,
  type LineKey,
} from '#core/limits'
import { dueOfPrinter } from '#core/schedule'
import { platinumOhm, sensorCheck, thermocoupleMillivolt } from '#core/thermometry'
import { precheckSchema, soakSchema, warmUpSchema } from '#shared/entries/prepare'
import { changeSchema, printerSchema } from '#shared/entries/printers'
import { strikeSchema } from '#shared/entries/log'
import { referenceFields, sensorCheckSchema } from '#shared/entries/sensors'
import type { Connection } from '../../server/db/client'
import { equip } from '../../server/records/bench/equip'
import { floor } from '../../server/records/bench/floor'
import { editRecord } from '../../server/records/entry/edits'
import { saveStrike } from '../../server/records/entry/strikes'
import { addMaterial } from '../../server/records/materials/materials'
import { makePrecheck } from '../../server/records/prepare/prechecks'
import { saveSoak } from '../../server/records/prepare/soaks'
import { saveWarmUp } from '../../server/records/prepare/warm-ups'
import { addPrinter, saveChange } from '../../server/records/printers/stack-change'
import { listShelf, listStacks } from '../../server/records/printers/stack-read'
import { saveRun } from '../../server/records/runs/runs'
import { saveSensorCheck, verifyPage } from '../../server/records/sensors/checks'
import { addReference } from '../../server/records/sensors/references'
import { ago, freshDatabase, materialEntry, printerEntry, refusal, runEntry, smallShop } from './support'

const { db } = await freshDatabase()
const shop = await smallShop(db)
const tx = <T>(work: (c: Connection) => Promise<T>) => db.transaction(work)
const { printerId, headId } = shop

const probe = { kind: 'probe', readsIn: '°C', certificateUC: 0.3, meter: 0.1 }
const { id: probeId } = await tx(c => addReference(c, referenceFields.parse({ name: 'Probe', is: probe }), 1))
const check = (more: object) =>
  sensorCheckSchema.parse({
    printerId,
    zone: 'hotend',
    headId,
    referenceId: probeId,
    placement: 'in the block',
    points: [
      { shownC: 240, reading: 246 },
      { shownC: 290, reading: 296 },
    ],
    allowed: { by: 'data sheet', plusMinusC: 5 },
    occurredAt: ago(0),
    ...more,
  })
const bedCheck = (more: object = {}) =>
  check({
    zone: 'bed',
    headId: null,
    placement: 'in the bed',
    points: [
      { shownC: 60, reading: 66 },
      { shownC: 110, reading: 116 },
    ],
    ...more,
  })
const save = (c: ReturnType<typeof check>) => tx(t => saveSensorCheck(t, c, 1))
const strike = (id: number) =>
  tx(t => saveStrike(t, strikeSchema.parse({ target: 'sensor check', targetId: id, reason: 'for the test' }), 1))
const printer = async (id = printerId) => (await listStacks(db, [id]))[0]!

const window = startWindow('PA6', 'carbon fibre')!
const nylon = await tx(c =>
  addMaterial(c, materialEntry('PA6-CF20 with its window', { facts: window.facts, sets: window.sets }), 1),
)
const JOB = { nozzleC: 290, bedC: 108, chamberC: null }
await tx(c =>
  saveRun(
    c,
    {
      ...runEntry(shop),
      bedSetC: JOB.bedC,
      tools: runEntry(shop).tools.map(t => ({ ...t, setC: JOB.nozzleC })),
    } as never,
    1,
  ),
)

/** What each station says of one job: whether its nozzle, and its bed, is too much. */
async function everybody() {
  const e = await equip(db)
  const at = e.printers.find(p => p.id === printerId)!
  const stack = stackOf(at, headId)
  const { lines } = checkStack(stack, demandOfJob('job', JOB, null), e.rules)
  const short = (...keys: LineKey[]) => lines.some(l => l.status === 'short' && keys.includes(l.key))

  const made = await makePrecheck(
    db,
    precheckSchema.parse({
      printerId,
      headId,
      materialId: nylon.id,
      printsFrom: 'room',
      hours: 1,
      name: 'job',
      setC: JOB,
      occurredAt: ago(0),
    }),
  )
  const stops = made.lines.filter(l => l.key === 'limits' && l.status === 'stop').map(l => l.says)

  const seen = (await floor(db)).printers.find(p => p.id === printerId)!
  const due = dueOfPrinter(seen, 0.1).filter(d => d.mark === 'stop')

  const soak = soakSchema.parse({
    printerId,
    bedC: JOB.bedC,
    part: 'small',
    minutes: 20,
    basis: 'practice',
    confirmed: ['soaking'],
    occurredAt: ago(0),
  })
  const refused = await refusal(
    db.transaction(async t => {
      await saveSoak(t, soak, 1)
      t.rollback()
    }),
  ).catch(() => null)
  expect(refused !== null).toBe(soakRefusal(stack, { bedC: JOB.bedC, chamberC: null }, e.rules) !== null)
  return {
    nozzle: [
      short('nozzle temperature'),
      stops.some(s => s.includes('sensor is')),
      due.some(d => d.reason.includes('nozzle') || d.reason.includes('sensor')),
    ],
    bed: [short('bed'), stops.some(s => s.includes('of the bed')), refused !== null],
  }
}

describe('a check that finds the sensor reading 6 °C low', () => {
  test('Equip, Soak, May I start and Floor say the same before and after, and again when it is struck', async () => {
    expect(await everybody()).toEqual({ nozzle: [false, false, false], bed: [false, false, false] })
    const hotend = await save(check({}))
    expect(hotend).toMatchObject({
      verdict: 'fail',
      before: [{ zone: 'hotend', limitC: 290 }],
      after: [{ zone: 'hotend', limitC: 289 }],
    })
    expect(await everybody()).toEqual({ nozzle: [true, true, true], bed: [false, false, false] })
    const bed = await save(bedCheck())
    expect(await everybody()).toEqual({ nozzle: [true, true, true], bed: [true, true, true] })
    await strike(hotend.id)
    await strike(bed.id)
    expect(await everybody()).toEqual({ nozzle: [false, false, false], bed: [false, false, false] })
  })
  test('says at the profile what the file makes', async () => {
    const saved = await save(check({}))
    const ask = (nozzleC: number) =>
      makePrecheck(
        db,
        precheckSchema.parse({
          printerId,
          headId,
          materialId: nylon.id,
          printsFrom: 'room',
          hours: 1,
          name: 'job',
          setC: { nozzleC, bedC: 80, chamberC: null },
          occurredAt: ago(0),
        }),
      )
    const max = window.facts.nozzleMaxC!.value
    const profile = async (c: number) => (await ask(c)).lines.find(l => l.key === 'profile')!
    expect((await profile(max - 6)).status).toBe('ok')
    expect(await profile(max + 10)).toMatchObject({
      says: expect.stringContaining(`${max + 10} °C (${max + 16} °C by the check of its sensor)`) as string,
    })
    await strike(saved.id)
  })
})

describe('whose check it is', () => {
  const state = async (id = printerId) => (await printer(id)).sensors?.heads[headId] ?? null
  test('of the pair: a sensor swapped in is unchecked, and the old one on another printer too', async () => {
    const saved = await save(check({}))
    expect((await state())?.own?.points).toHaveLength(2)
    const sensor = (await printer()).parts.find(p => p.role === 'sensor')!
    const swap = {
      printerId,
      text: 'another sensor',
      occurredAt: ago(0),
      add: [{ kind: 'bead thermistor, 10-bit reading', headId }],
      remove: [sensor.id],
    }
    await tx(c => saveChange(c, changeSchema.parse(swap), 1))
    expect(await state()).toBeNull()
    const line = (await verifyPage(db)).sensors.find(s => s.printerId === printerId && s.zone === 'hotend')!
    expect(line.checks.find(c => c.id === saved.id)).toMatchObject({ ofThisSensor: false, struck: null })

    const other = await tx(c => addPrinter(c, printerEntry('Wharfe'), 1))
    const its = (await printer(other.id)).parts.find(p => p.role === 'sensor')!
    const moved = {
      printerId: other.id,
      text: 'the hotend of Ribble',
      occurredAt: ago(0),
      fit: [{ partId: sensor.id, headId: other.headIds[0]! }],
      remove: [its.id],
    }
    expect((await listShelf(db)).some(p => p.id === sensor.id)).toBe(true)
    await tx(c => saveChange(c, changeSchema.parse(moved), 1))
    expect((await printer(other.id)).sensors).toBeUndefined()
  })
  test('a reference that is edited later changes nothing that was checked with it', async () => {
    const saved = await save(check({ points: [{ shownC: 240, reading: 241 }] }))
    const before = await state()
    const worse = { name: 'Probe', is: { ...referenceFields.parse({ name: 'x', is: probe }).is, certificateUC: 9 } }
    await tx(c => editRecord(c, 'references', probeId, 1, worse, 1))
    expect(await state()).toEqual(before)
    const back = { ...worse, is: { ...worse.is, certificateUC: 0.3 } }
    await tx(c => editRecord(c, 'references', probeId, 2, back, 1))
    await strike(saved.id)
  })
  test('at the tip: it may only tighten, and the guard band stays', async () => {
    const tip = (reading: number) => save(check({ placement: 'at the tip', points: [{ shownC: 240, reading }] }))
    const low = await tip(228)
    expect(low.verdict).toBe('cannot tell')
    expect(low.after).toEqual(low.before)
    const high = await tip(248)
    expect(high.after[0]!.limitC).toBeCloseTo(high.before[0]!.limitC - 8, 6)
    await strike(low.id)
    await strike(high.id)
  })
})

test('a warm-up and the check of its bed: both sides corrected, so the same setting makes the same air', async () => {
  const rising = Array.from({ length: 80 }, (_, i) => ({ s: i * 60, c: 23 + 42 * (1 - Math.exp(-i / 15)) }))
  const record = { printerId, place: 'high', bedC: 100, roomC: 23, readings: rising, occurredAt: ago(0.1) }
  await tx(c => saveWarmUp(c, warmUpSchema.parse(record), 1))
  const rules = (await equip(db)).rules
  const settles = async () =>
    settlesAt(stackOf(await printer(), headId), { bedC: 100, chamberC: null }, null, rules)!.settlesC
  const before = await settles()
  expect(before).toBeCloseTo(65, 0)
  const bed = await save(bedCheck())
  expect(await settles()).toBeCloseTo(before, 6)
  const source = (await printer()).air.find(s => s.place === 'high')!
  expect(source.value).toBeCloseTo(42 / (106 - 23), 2)
  await strike(bed.id)
})

describe('what is more likely a slip than a sensor', () => {
  const couple = { kind: 'thermocouple', readsIn: 'mV', type: 'K', coupleClass: 1, meter: 0.01 }
  const pt = { kind: 'platinum', readsIn: 'Ω', r0Ohm: 100, build: 'wire', platinumClass: 'A', wires: 4, meter: 0.01 }
  const adding = (name: string, is: object, more: object = {}) =>
    tx(c => addReference(c, referenceFields.parse({ name, is, ...more }), 1))
  test('is refused at its point, by the core', async () => {
    const [k, p] = [(await adding('K couple', couple)).id, (await adding('Pt100', pt)).id]
    const at = (referenceId: number, ...points: object[]) => refusal(save(check({ referenceId, points })))
    const field = async (said: ReturnType<typeof at>) => (await said).errors![0]!.field
    expect(await field(at(k, { shownC: 240, reading: 60, coldC: 23 }))).toBe('points.0.reading')
    expect(await field(at(k, { shownC: 200, reading: 8, coldC: 23 }, { shownC: 240, reading: 9 }))).toBe(
      'points.1.coldC',
    )
    expect((await at(p, { shownC: 240, reading: platinumOhm(240, 1000) })).title).toContain('is it a Pt1000?')
    expect(await field(at(probeId, { shownC: 200, reading: 210 }, { shownC: 220, reading: 205 }))).toBe(
      'points.1.reading',
    )
    expect(await field(refusal(save(check({ placement: 'in the bed' }))))).toBe('placement')
    expect(await field(refusal(save(check({ zone: 'bed', placement: 'in the bed' }))))).toBe('printerId')
    expect(await field(refusal(save(check({ referenceId: 99 }))))).toBe('referenceId')
    const cold = sensorCheckSchema.safeParse({ ...check({}), points: [{ shownC: 240, reading: 8, coldC: 400 }] })
    expect(cold.error!.issues[0]).toMatchObject({ path: ['points', 0, 'coldC'], message: 'At most 80 °C' })
  })
  test('or asked: far off, a certificate that ran out', async () => {
    const off = check({ points: [{ shownC: 240, reading: 150 }] })
    expect((await refusal(save(off))).questions).toMatchObject([{ code: 'far-off', field: 'points' }])
    const old = await adding('Old probe', probe, { dueOn: '2020-01-31' })
    const by = check({ referenceId: old.id })
    expect((await refusal(save(by))).questions).toMatchObject([{ code: 'certificate', field: 'referenceId' }])
    const saved = await save(check({ referenceId: old.id, confirmed: ['certificate'] }))
    await strike(saved.id)
  })
  test('a reference says at its field what is missing', () => {
    const wrong = (is: object) => referenceFields.safeParse({ name: 'x', is }).error!.issues[0]!
    expect(wrong({ ...couple, coupleClass: null }).path).toEqual(['is', 'coupleClass'])
    expect(wrong({ ...pt, wires: 2 }).path).toEqual(['is', 'leadOhm'])
    expect(wrong({ ...probe, certificateUC: null }).path).toEqual(['is', 'certificateUC'])
    expect(wrong({ ...couple, readsIn: 'Ω' }).path).toEqual(['is', 'readsIn'])
  })
})

test('the page has every input of every printer in use, and computes what was read', async () => {
  const mV = thermocoupleMillivolt('K', 241.5) - thermocoupleMillivolt('K', 24)
  const k = (await verifyPage(db)).references.find(r => r.name === 'K couple')!
  const saved = await save(check({ referenceId: k.id, points: [{ shownC: 240, reading: mV, coldC: 24, swingC: 1 }] }))
  const { sensors } = await verifyPage(db)
  expect(sensors.filter(s => s.printerId === printerId).map(s => s.zone)).toEqual(['hotend', 'bed', 'chamber'])
  const line = sensors.find(s => s.zone === 'hotend' && s.printerId === printerId)!
  expect(line.guardPartC).toBe(5)
  const stored = line.checks.find(c => c.id === saved.id)!
  const result = sensorCheck(stored.points, stored.referenceIs, stored.placement, stored.allowed)
  expect(result.worst.cC).toBeCloseTo(1.5, 6)
  expect(result.verdict).toBe('pass')
  // an open frame has no chamber to check
  const open = await tx(c =>
    addPrinter(c, printerSchema.parse({ ...printerEntry('Aire'), parts: printerEntry('Aire').parts.slice(0, 3) }), 1),
  )
  expect((await verifyPage(db)).sensors.filter(s => s.printerId === open.id).map(s => s.zone)).toEqual([
    'hotend',
    'bed',
  ])
  // by the lines: the margin of the sensor's own limit
  const e = await equip(db)
  const at = e.printers.find(p => p.id === printerId)!
  const { lines } = checkStack(stackOf(at, headId), demandOfJob('job', { ...JOB, nozzleC: 250 }, null), e.rules)
  const own = lines.find(l => l.key === 'nozzle temperature' && l.part?.role === 'sensor')!
  expect(marginOf(own)).toBeCloseTo(300 - 5 - 251.5, 5)
})
