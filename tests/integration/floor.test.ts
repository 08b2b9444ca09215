/** What the Floor says: each reason a technician would give, in order of urgency, from the log alone. */
import { sql } from 'drizzle-orm'
import { expect, test } from 'vitest'
import { fittingSchema, partFields } from '#shared/entries/printers'
import { nozzleSchema } from '#shared/entries/nozzles'
import { strikeSchema } from '#shared/entries/log'
import type { RunEntry } from '#shared/entries/runs'
import type { Connection } from '../../server/db/client'
import { equip } from '../../server/records/bench/equip'
import { floor } from '../../server/records/bench/floor'
import { refreshCeilings } from '../../server/records/printers/ceilings'
import { listPeople } from '../../server/records/shop/people'
import { shop as shopNames } from '../../server/records/shop/shop'
import { saveFitting } from '../../server/records/printers/fittings'
import { saveGauge } from '../../server/records/nozzles/gauges'
import { saveRun } from '../../server/records/runs/runs'
import { addPrinter } from '../../server/records/printers/stack-change'
import { listStacks } from '../../server/records/printers/stack-read'
import { addNozzle, nozzlePage } from '../../server/records/nozzles/nozzles'
import { addNozzleType } from '../../server/records/nozzles/types'
import { editRecord } from '../../server/records/entry/edits'
import { saveStrike } from '../../server/records/entry/strikes'
import { ago, freshDatabase, gaugeEntry, printerEntry, refusal, runEntry, smallShop, typeEntry } from './support'

const { db } = await freshDatabase()
const shop = await smallShop(db)
const tx = <T>(work: (c: Connection) => Promise<T>) => db.transaction(work)
const lines = async () => (await floor(db)).bench
const run = (more: Partial<RunEntry> = {}, grams = 100) =>
  tx(c => saveRun(c, runEntry(shop, { confirmed: ['over-spool:1'], ...more }, { kind: 'grams', grams }), 1))
const strike = (target: 'run' | 'gauge', targetId: number) =>
  tx(c => saveStrike(c, strikeSchema.parse({ target, targetId, reason: 'a test' }), 1))

test('before any job: nothing due, and what is left is not known', async () => {
  const f = await floor(db)
  expect(f.printers[0]).toMatchObject({ verdict: 'fine', last: null })
  expect(f.printers[0]!.heads[0]!.nozzle).toMatchObject({ tag: 'N-1', leftKg: null, nextGaugeKg: null })
  expect(f.bench).toEqual([expect.objectContaining({ verdict: 'fine', reason: 'Nothing due.' })])
})

test('after a job: what is left with its range, and the limits with basis and person', async () => {
  await run()
  const p = (await floor(db)).printers[0]!
  const left = p.heads[0]!.nozzle!.leftKg!
  expect(left.low80).toBeLessThan(left.median)
  expect(left.high80).toBeGreaterThan(left.median)
  expect(p.last).toMatchObject({ name: 'cable guide', outcome: 'finished', material: 'PA6-CF20' })
  // the bed by the air that it makes at the belt, and by the heater that is sure
  expect(p.limits.map(l => [l.zone, l.part])).toEqual([
    ['hotend', 'sensor'],
    ['bed', 'belt'],
    ['bed', 'heater'],
    ['chamber', 'belt'],
  ])
  expect(p.limits[0]).toMatchObject({
    zone: 'hotend',
    limitC: 290,
    part: 'sensor',
    basis: 'data sheet',
    enteredBy: 'Day technician',
  })
  expect((await lines())[0]!.reason).toMatch(/^Gauge due in .* of fibre\.$/)
})

test('a job that asked too much stops the printer; striking it out lets it go', async () => {
  const { runId } = await run({
    endedAt: ago(0.3),
    bedSetC: 125,
    tools: [{ ...runEntry(shop).tools[0]!, amount: { kind: 'grams', grams: 5 }, setC: 300 }],
  })
  const bench = await lines()
  expect(bench.filter(l => l.verdict === 'stop').map(l => l.reason)).toEqual([
    'The last job asked 300 °C of the nozzle; the sensor stops at 290 °C.',
    'The last job asked 125 °C of the bed; 103 °C brings the air at the belt to its limit.',
  ])
  expect((await floor(db)).printers[0]!.verdict).toBe('stop')
  await strike('run', runId)
  expect((await floor(db)).printers[0]!.verdict).toBe('fine')
})

test('raising the limit lets it go as well', async () => {
  const { runId } = await run({
    endedAt: ago(0.29),
    tools: [{ ...runEntry(shop).tools[0]!, amount: { kind: 'grams', grams: 5 }, setC: 295 }],
  })
  const sensor = (await listStacks(db))[0]!.parts.find(p => p.role === 'sensor')!
  expect((await floor(db)).printers[0]!.verdict).toBe('stop')
  await tx(c =>
    editRecord(c, 'parts', sensor.id, 1, partFields.parse({ ...sensor, limitC: 320, note: 'its data sheet' }), 1),
  )
  expect((await floor(db)).printers[0]!.verdict).toBe('fine')
  await strike('run', runId)
})

test('a failed job says where it stopped and what was seen', async () => {
  const { runId } = await run({ endedAt: ago(0.28), outcome: 'failed', symptoms: ['under-extruded', 'clog'] }, 10)
  expect(await lines()).toContainEqual(
    expect.objectContaining({
      verdict: 'look',
      reason: 'cable guide failed: under-extruded, clog.',
      to: '/inspect/N-1',
    }),
  )
  // whoever has gauged the nozzle that printed it has looked
  const gauge = gaugeEntry(shop, { goMm: 0.4, noGoMm: 0.41, occurredAt: ago(0.26) })
  const { gaugeId } = await tx(c => saveGauge(c, gauge, 1))
  const failed = async () => (await lines()).some(l => l.reason.includes('failed'))
  expect(await failed()).toBe(false)
  await strike('gauge', gaugeId)
  expect(await failed()).toBe(true)
  await strike('run', runId)
})

test('a chipped tip comes before a chance', async () => {
  const g = await tx(c => saveGauge(c, gaugeEntry(shop, { shape: ['chipped'], occurredAt: ago(0.27) }), 1))
  const bench = await lines()
  expect(bench[0]).toMatchObject({
    verdict: 'stop',
    nozzle: 'N-1',
    reason: 'Last gauge found: chipped.',
    action: 'Swap it',
  })
  await strike('gauge', g.gaugeId)
})

test('worn towards the limit: look, then stop, with the chance', async () => {
  const big = await run({ endedAt: ago(0.26) }, 4000)
  const g1 = await tx(c => saveGauge(c, gaugeEntry(shop, { goMm: 0.43, noGoMm: 0.44, occurredAt: ago(0.25) }), 1))
  const after = await run({ endedAt: ago(0.24) }, 400)
  const [first] = await lines()
  expect(first).toMatchObject({
    verdict: expect.stringMatching(/look|stop/),
    nozzle: 'N-1',
    to: '/inspect/N-1?gauge=1',
    reason: expect.stringMatching(/% chance that it is past 0\.44 mm/),
  })
  const g2 = await tx(c => saveGauge(c, gaugeEntry(shop, { goMm: 0.45, noGoMm: 0.46, occurredAt: ago(0.23) }), 1))
  expect((await lines())[0]).toMatchObject({ verdict: 'stop', reason: expect.stringMatching(/(9\d|over 99) % chance/) })
  for (const id of [g1.gaugeId, g2.gaugeId]) await strike('gauge', id)
  for (const r of [big, after]) await strike('run', r.runId)
})

test('an empty head and a soft nozzle on filled filament are worth a look', async () => {
  const other = await tx(c => addPrinter(c, printerEntry('Aire'), 1))
  expect(await lines()).toContainEqual(
    expect.objectContaining({
      printer: 'Aire',
      verdict: 'look',
      reason: 'No nozzle fitted.',
      to: `/stores?fit=${other.headIds[0]}`,
    }),
  )
  const type = await tx(c => addNozzleType(c, typeEntry('brass 0.4', 'brass'), 1))
  const brass = await tx(c => addNozzle(c, nozzleSchema.parse({ tag: 'N-8', typeId: type.id, receivedAt: ago(9) }), 1))
  await tx(c =>
    saveFitting(
      c,
      fittingSchema.parse({ kind: 'fit', nozzleId: brass.id, headId: other.headIds[0], occurredAt: ago(8) }),
      1,
    ),
  )
  await tx(c =>
    saveRun(
      c,
      runEntry(
        { ...shop, printerId: other.id, headId: other.headIds[0]!, nozzleId: brass.id },
        { confirmed: ['over-spool:1'] },
        { kind: 'grams', grams: 1 },
      ),
      1,
    ),
  )
  expect(await lines()).toContainEqual(
    expect.objectContaining({ printer: 'Aire', nozzle: 'N-8', reason: 'Brass wears fast with PA6-CF20.' }),
  )
})

test('urgency falls from line to line', async () => {
  const weights = (await lines()).map(l => l.weight)
  expect(weights).toEqual([...weights].sort((a, b) => b - a))
})

test('a printer out of use leaves the screens; what it printed still counts', async () => {
  const edit = (outOfUse: boolean, version: number) =>
    tx(c =>
      editRecord(c, 'printers', shop.printerId, version, { name: 'Ribble', kind: 'enclosed', note: '', outOfUse }, 1),
    )
  const [printer] = await db.execute<{ version: number }>(
    sql`select version from printers where id = ${shop.printerId}`,
  )
  const wear = async () => (await nozzlePage(db, 'N-1')).input.wearKg
  const names = async () => (await floor(db)).printers.map(p => p.name)
  const before = await wear()
  await edit(true, printer!.version)
  expect(await names()).not.toContain('Ribble')
  expect((await equip(db)).printers.map(p => p.name)).not.toContain('Ribble')
  const gone = await shopNames(db)
  expect(gone.printers.map(p => p.name)).not.toContain('Ribble')
  expect(gone.outOfUse.printers.map(p => p.name)).toEqual(['Ribble'])
  expect(await wear()).toBe(before)
  // its limits are still worked out, so that they are right when it comes back
  await tx(c => refreshCeilings(c))
  await edit(false, printer!.version + 1)
  expect(await names()).toContain('Ribble')
  expect((await floor(db)).printers.find(p => p.name === 'Ribble')!.limits.length).toBeGreaterThan(0)
})

test('a person who left acts no more, and somebody stays who can', async () => {
  const people = await listPeople(db)
  const leave = (p: (typeof people)[number]) =>
    tx(c => editRecord(c, 'people', p.id, 1, { name: p.name, role: p.role, outOfUse: true }, 1))
  for (const p of people.slice(1)) await leave(p)
  expect((await shopNames(db)).people.map(p => p.id)).toEqual([people[0]!.id])
  expect((await refusal(leave(people[0]!))).errors![0]!.message).toContain('Nobody would be left')
})

test('a removal that is struck out leaves a head with one nozzle, the one fitted last', async () => {
  const second = await tx(c =>
    addNozzle(c, nozzleSchema.parse({ tag: 'N-9', typeId: shop.typeId, receivedAt: ago(0.4) }), 1),
  )
  const fit = { kind: 'fit', nozzleId: second.id, headId: shop.headId, occurredAt: ago(0.3) }
  await tx(c => saveFitting(c, fittingSchema.parse(fit), 1))
  const [off] = await db.execute<{ id: number }>(sql`
    select id::int from fittings where kind = 'remove' and nozzle_id = ${shop.nozzleId} order by id desc limit 1`)
  await tx(c => saveStrike(c, strikeSchema.parse({ target: 'fitting', targetId: off!.id, reason: 'a test' }), 1))
  const headsOf = (printers: readonly { id: number; heads: unknown[] }[]) =>
    printers.find(p => p.id === shop.printerId)!.heads
  expect(headsOf((await floor(db)).printers)).toMatchObject([{ id: shop.headId, nozzle: { tag: 'N-9' } }])
  expect(headsOf((await shopNames(db)).printers)).toMatchObject([{ id: shop.headId, nozzle: 'N-9' }])
  expect(headsOf(await listStacks(db))).toMatchObject([{ id: shop.headId, nozzle: { tag: 'N-9' } }])
})
