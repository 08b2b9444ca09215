/** Pins and stock: what a certificate makes of earlier gauges, what stands on the shelf whatever is entered late. */
import { sql } from 'drizzle-orm'
import { describe, expect, test } from 'vitest'
import { gaugeSchema } from '#shared/entries/nozzles'
import { pinCertificateSchema, pinFields } from '#shared/entries/pins'
import { stockItemFields, stockMoveSchema } from '#shared/entries/stock'
import { upkeepSchema, upkeepTaskFields } from '#shared/entries/upkeep'
import { dueItems } from '../../server/records/due/due'
import { editRecord } from '../../server/records/entry/edits'
import { refreshStale } from '../../server/records/nozzles/forecasts'
import { saveGauge } from '../../server/records/nozzles/gauges'
import { nozzlePage } from '../../server/records/nozzles/nozzles'
import { addPin, listPins, saveCertificate } from '../../server/records/pins/pins'
import { addStockItem, saveStockMove, takeForProcedure } from '../../server/records/stock/items'
import { stockPage } from '../../server/records/stock/stock'
import { addUpkeepTask } from '../../server/records/upkeep/tasks'
import { saveUpkeep } from '../../server/records/upkeep/upkeep'
import { entriesOf } from './derived-support'
import { ago, freshDatabase, refusal, smallShop } from './support'

const { db } = await freshDatabase()
const shop = await smallShop(db)
const { tx, run, strike } = entriesOf(db, shop)

describe('pins', () => {
  const gauge = (more: object, at = 3) =>
    tx(c =>
      saveGauge(
        c,
        gaugeSchema.parse({
          nozzleId: shop.nozzleId,
          occurredAt: ago(at),
          confirmed: ['unexpected-bore:as-read'],
          ...more,
        }),
        1,
      ),
    )
  const certify = (pinId: number, sizeMm: number, at: number, more: object = {}) =>
    tx(c =>
      saveCertificate(c, pinCertificateSchema.parse({ pinId, sizeMm, expandedUm: 1, occurredAt: ago(at), ...more }), 1),
    )
  const page = () => nozzlePage(db, 'N-1')
  let pinId = 0

  test('a gauge made before its certificate counts by it, and again as typed when that is struck out', async () => {
    await run(5)
    const { gaugeId } = await gauge({ goMm: 0.41, noGoMm: 0.42, noGoPin: 'p-42' })
    const before = await page()
    expect(before.gaugePoints.at(-1)).toMatchObject({ goMm: 0.41, noGoMm: 0.42 })
    pinId = (await tx(c => addPin(c, pinFields.parse({ mark: 'P-42', nominalMm: 0.42 }), 1))).id
    const effect = await certify(pinId, 0.416, 1)
    expect(effect).toMatchObject({ mark: 'P-42', gauges: 1, nozzles: ['N-1'] })
    const after = await page()
    expect(after.stale).toBe(true)
    expect(after.gaugePoints.at(-1)).toMatchObject({ goMm: 0.41, noGoMm: 0.416 })
    expect(after.forecast.bore.median).toBeLessThan(before.forecast.bore.median)
    expect(after.record.find(r => r.kind === 'gauge' && r.id === gaugeId)!.detail).toContain(
      '0.42 counts as 0.416 mm (pin p-42)',
    )
    await refreshStale(db)
    expect((await page()).stale).toBe(false)
    // as good as typed by what it measures
    const typed = after.input.bore.observations.at(-1)!
    expect(typed).toMatchObject({ kind: 'pins', noGoMm: 0.416 })
    expect(after.input.bore.observations.at(-1)).not.toHaveProperty('goUMm')
    await strike('pin certificate', effect.id)
    expect((await page()).gaugePoints.at(-1)).toMatchObject({ noGoMm: 0.42 })
    expect((await page()).forecast.bore.median).toBeCloseTo(before.forecast.bore.median, 5)
  })
  test('between two certificates it lies between them; the first reaches back', async () => {
    await certify(pinId, 0.42, 400)
    await certify(pinId, 0.416, 1, { dueOn: ago(-10).slice(0, 10) })
    const at = async () => (await page()).gaugePoints.at(-1)!.noGoMm!
    expect(await at()).toBeCloseTo(0.418, 9)
    const [pin] = await listPins(db)
    expect(pin).toMatchObject({ mark: 'P-42', gauges: 1, nozzles: 1, due: { mark: 'fine' } })
    expect(pin!.certificates.map(c => c.sizeMm)).toEqual([0.416, 0.416, 0.42])
    expect((await dueItems(db)).find(i => i.about === 'P-42')!.on).not.toBeNull()
  })
  test('two pins that are no pair by what they measure are refused at their mark', async () => {
    const other = await tx(c => addPin(c, pinFields.parse({ mark: 'P-415', nominalMm: 0.415 }), 1))
    await certify(other.id, 0.4165, 2)
    expect(await refusal(gauge({ goMm: 0.415, goPin: 'P-415', noGoMm: 0.42, noGoPin: 'P-42' }, 0.5))).toMatchObject({
      errors: [{ field: 'goPin' }],
    })
  })
  test('another size than the pin is refused at its mark; a withdrawn one asks', async () => {
    expect(await refusal(gauge({ goMm: 0.43, goPin: 'P-42' }))).toMatchObject({
      errors: [{ field: 'goPin', message: 'Pin P-42 is 0.42 mm; 0.43 mm was typed' }],
    })
    expect(await refusal(certify(pinId, 0.52, 0))).toMatchObject({ errors: [{ field: 'sizeMm' }] })
    expect(await refusal(tx(c => addPin(c, pinFields.parse({ mark: 'p-42', nominalMm: 0.42 }), 1)))).toMatchObject({
      errors: [{ field: 'mark' }],
    })
    await tx(c => editRecord(c, 'pins', pinId, 1, { mark: 'P-42', nominalMm: 0.42, note: '', withdrawn: true }, 1))
    expect(await refusal(gauge({ goMm: 0.41, noGoMm: 0.42, noGoPin: 'P-42' }, 0.1))).toMatchObject({
      questions: [{ code: 'pin-withdrawn:P-42' }],
    })
    expect((await dueItems(db)).some(i => i.about === 'P-42')).toBe(false)
  })
  test('under another mark its gauges count by it no longer', async () => {
    await tx(c => editRecord(c, 'pins', pinId, 2, { mark: 'Q-42', nominalMm: 0.42, note: '', withdrawn: false }, 1))
    expect((await page()).gaugePoints.at(-1)).toMatchObject({ noGoMm: 0.42 })
  })
})

describe('stock', () => {
  const item = (more: object) => tx(c => addStockItem(c, stockItemFields.parse({ kind: 'belt', ...more }), 1))
  const move = (itemId: number, kind: string, quantity: number, at: number, confirmed: string[] = []) =>
    tx(c => saveStockMove(c, stockMoveSchema.parse({ itemId, kind, quantity, occurredAt: ago(at), confirmed }), 1))
  const line = async (id: number) => (await stockPage(db, 60)).lines.find(l => l.id === id)!

  test('since the last count; late, struck out, ordered and come', async () => {
    const { id } = await item({ name: 'Belt', minimum: 2 })
    // nothing was logged of it: nothing tells how often it is used
    expect(await line(id)).toMatchObject({ onHand: 0, wanted: null })
    await move(id, 'received', 9, 30)
    const { id: count } = await move(id, 'counted', 4, 20)
    await move(id, 'used', 1, 10)
    expect(await line(id)).toMatchObject({ onHand: 3, onOrder: 0, due: null })
    // entered late: of before the count
    await move(id, 'used', 1, 25)
    expect((await line(id)).onHand).toBe(3)
    await move(id, 'used', 2, 5)
    expect(await line(id)).toMatchObject({ onHand: 1, due: { mark: 'look', action: 'Order at least 1' } })
    await move(id, 'ordered', 3, 4)
    expect(await line(id)).toMatchObject({ onOrder: 3, due: { mark: 'fine' } })
    await move(id, 'received', 2, 3)
    expect(await line(id)).toMatchObject({ onHand: 3, onOrder: 1 })
    // more than was ordered: the rest came without an order
    await move(id, 'received', 5, 2)
    expect(await line(id)).toMatchObject({ onHand: 8, onOrder: 0 })
    await move(id, 'ordered', 1, 1)
    expect((await line(id)).onOrder).toBe(1)
    await strike('stock move', count)
    expect((await line(id)).onHand).toBe(9 - 1 - 1 - 2 + 2 + 5)
  })
  test('more than there is asks, and then the book says so', async () => {
    const { id } = await item({ name: 'Filter', kind: 'filter' })
    expect(await refusal(move(id, 'used', 1, 1))).toMatchObject({ questions: [{ code: 'more-than-there' }] })
    await move(id, 'used', 1, 1, ['more-than-there'])
    expect(await line(id)).toMatchObject({ onHand: -1, due: { action: 'Count it' } })
    expect(await refusal(move(id, 'counted', 1.5, 0))).toMatchObject({ errors: [{ field: 'quantity' }] })
  })
  test('nozzles are counted by their tags, and the forecasts say what is wanted', async () => {
    const [type] = await db.execute<{ id: number }>(sql`select type_id id from nozzles where id = ${shop.nozzleId}`)
    const { id } = await item({ kind: 'nozzle', name: 'of its type', nozzleTypeId: type!.id, minimum: 3 })
    const l = await line(id)
    expect(l).toMatchObject({ kind: 'nozzle', due: { mark: 'look' }, wanted: { by: 'forecasts' } })
    expect(await refusal(move(id, 'counted', 1, 0))).toMatchObject({ errors: [{ field: 'kind' }] })
    await move(id, 'ordered', 3, 0)
    expect(await line(id)).toMatchObject({ onOrder: 3 })
    expect(await refusal(item({ kind: 'nozzle', name: 'again', nozzleTypeId: type!.id }))).toMatchObject({
      errors: [{ field: 'nozzleTypeId' }],
    })
  })
  test('upkeep takes what it names, and gives it back when it is struck out', async () => {
    const { id } = await item({ name: 'Drive gear', kind: 'gear' })
    await move(id, 'counted', 2, 9)
    const fields = { kind: 'gears', name: 'Gears', everyDays: 90, basis: 'practice', printerId: shop.printerId }
    const task = (more: object) => tx(c => addUpkeepTask(c, upkeepTaskFields.parse({ ...fields, ...more }), 1))
    const { id: taskId } = await task({ stockItemId: id, stockQuantity: 1 })
    const bare = await task({ name: 'More gears' })
    const done = (of: number, took: number | null) =>
      tx(c => saveUpkeep(c, upkeepSchema.parse({ taskId: of, found: 'replaced', took, occurredAt: ago(1) }), 1))
    expect(await refusal(done(bare.id, 1))).toMatchObject({ errors: [{ field: 'took' }] })
    const { id: entry } = await done(taskId, 1)
    expect((await line(id)).onHand).toBe(1)
    expect((await stockPage(db, 60)).moves.find(m => m.name === 'Drive gear')!.from).toMatch(/^upkeep of .*, Gears$/)
    await strike('upkeep', entry)
    expect((await line(id)).onHand).toBe(2)
    await done(taskId, null)
    expect((await line(id)).onHand).toBe(2)
  })
  test('a finished swap takes one of what each swap uses up', async () => {
    const { id } = await item({ name: 'Sock', kind: 'other', usedBy: 'a nozzle swap' })
    await move(id, 'counted', 3, 9)
    await tx(async c => {
      const [p] = await c.execute<{ id: number }>(sql`
        insert into procedures (kind, title, printer_id, steps, facts, occurred_at, person_id)
        values ('swap', 'Swap', ${shop.printerId}, '[]', '{}', now(), 1) returning id::int`)
      await takeForProcedure(c, 'a nozzle swap', p!.id, new Date(), 1)
    })
    expect((await line(id)).onHand).toBe(2)
  })
  test('what is derived is what the log says', async () => {
    const stands = () => db.execute(sql`select * from stock_stands order by item_id`)
    const kept = await stands()
    await db.execute(sql`select stock_stand(array(select distinct item_id from stock_moves))`)
    expect([...kept]).toEqual([...(await stands())])
    expect(kept.length).toBeGreaterThan(3)
  })
})
