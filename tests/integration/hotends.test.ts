/** Hotends as things: what goes along, what is forgotten, what can be undone; and one changed step by step. */
import { sql } from 'drizzle-orm'
import { describe, expect, test } from 'vitest'
import { assemblySchema } from '#shared/entries/hotends'
import { referenceFields, sensorCheckSchema } from '#shared/entries/sensors'
import { fittingSchema } from '#shared/entries/printers'
import { saveAssembly } from '../../server/records/printers/bench'
import { headAt, saveFitting } from '../../server/records/printers/fittings'
import { listHotends } from '../../server/records/printers/hotends'
import { listCutOutTests } from '../../server/records/chambers/plans'
import { addPrinter } from '../../server/records/printers/stack-change'
import { listShelf, listSpareNozzles, listStacks } from '../../server/records/printers/stack-read'
import { saveSensorCheck } from '../../server/records/sensors/checks'
import { addReference } from '../../server/records/sensors/references'
import {
  change,
  hotend,
  message,
  newNozzle,
  provedNow,
  putTogether,
  SPARE,
  strike,
  tagOn,
  twoPrinters,
} from './hotend-support'
import { ago, freshDatabase, printerEntry, refusal } from './support'

const { db } = await freshDatabase()
const { shop, other, ribble, nidd } = await twoPrinters(db)
const reference = await db.transaction(tx =>
  addReference(
    tx,
    referenceFields.parse({ name: 'P', is: { kind: 'probe', readsIn: '°C', certificateUC: 0.3, meter: 0.1 } }),
    1,
  ),
)
const check = (printerId: number, headId: number, days: number) =>
  db.transaction(tx =>
    saveSensorCheck(
      tx,
      sensorCheckSchema.parse({
        printerId,
        zone: 'hotend',
        headId,
        referenceId: reference.id,
        placement: 'in the block',
        points: [{ shownC: 240, reading: 243 }],
        allowed: { by: 'guard band', plusMinusC: 5 },
        occurredAt: ago(days),
      }),
      1,
    ),
  )
const of = async (printerId: number) => (await listStacks(db, [printerId]))[0]!
const checked = async (printerId: number, headId: number) => (await of(printerId)).sensors?.heads[headId] ?? null

test('each head of a printer that is described has one, under the next free tag', async () => {
  expect((await listHotends(db)).map(h => [h.tag, h.place?.words, h.nozzle?.tag ?? null])).toEqual([
    ['H-01', 'Ribble', 'N-1'],
    ['H-02', 'Nidd', null],
  ])
  const two = await Promise.all([putTogether(db, { add: [] }), putTogether(db, { add: [] })])
  expect(two.map(t => t.tag).sort()).toEqual(['H-03', 'H-04'])
  expect(message(await refusal(putTogether(db, { tag: 'h-03' })))).toBe('There is already a hotend h-03')
})

describe('at the bench', () => {
  const work = (hotendId: number, more: object) =>
    db.transaction(tx =>
      saveAssembly(tx, assemblySchema.parse({ hotendId, text: 'at the bench', occurredAt: ago(1), ...more }), 1),
    )
  test('parts and nozzle go in and come out, and lie on the shelf by themselves only while they are out', async () => {
    const nozzle = await newNozzle(db, shop.typeId, 'N-20')
    const { id } = await putTogether(db, { nozzleId: nozzle.id })
    const line = await hotend(db, id)
    expect(line.parts.map(p => p.role).sort()).toEqual(['block', 'heat break', 'heater', 'sensor'])
    expect(line.nozzle!.tag).toBe('N-20')
    expect(await listShelf(db)).toEqual([])
    expect((await listSpareNozzles(db)).map(n => n.tag)).not.toContain('N-20')
    const sensor = line.parts.find(p => p.role === 'sensor')!
    expect(message(await refusal(work(id, { add: [SPARE[1]] })))).toMatch(/two of: sensor/)
    await work(id, { out: [sensor.id], nozzleOut: true, text: 'its thermocouple reads 20 low' })
    expect((await listShelf(db)).map(p => p.id)).toEqual([sensor.id])
    expect((await hotend(db, id)).nozzle).toBeNull()
    expect((await listSpareNozzles(db)).map(n => n.tag)).toContain('N-20')
    await work(id, { into: [sensor.id], nozzleId: nozzle.id })
    const again = await hotend(db, id)
    expect(again.parts.find(p => p.id === sensor.id)!.been.map(b => b.words)).toEqual([
      `on the shelf in ${again.tag}`,
      'on the shelf',
      `on the shelf in ${again.tag}`,
    ])
    expect(again.history.map(x => x.says)).toContain(`${again.tag} put together`)
    // struck out from the latest back: the thermocouple is out, and the nozzle
    const [last, out, made] = again.history
    expect(message(await refusal(strike(db, 'stack change', made!.changeId)))).toMatch(/was changed since/)
    await strike(db, 'stack change', last!.changeId)
    expect((await hotend(db, id)).parts.map(p => p.role)).not.toContain('sensor')
    expect((await hotend(db, id)).nozzle).toBeNull()
    await strike(db, 'stack change', out!.changeId)
    expect((await hotend(db, id)).nozzle!.tag).toBe('N-20')
    expect((await hotend(db, id)).history.map(x => x.struck !== null)).toEqual([true, true, false])
  })
  test('what is elsewhere does not go in', async () => {
    const { id } = await putTogether(db, { add: [] })
    expect(message(await refusal(work(id, { nozzleId: shop.nozzleId })))).toMatch(/N-1 is on a printer/)
    const taken = (await listHotends(db)).find(h => h.nozzle?.tag === 'N-20')!
    expect(message(await refusal(work(id, { nozzleId: taken.nozzle!.id })))).toBe(`N-20 is in ${taken.tag}`)
    expect(message(await refusal(work(id, { into: [taken.parts[0]!.id] })))).toMatch(/does not lie on the shelf/)
    const here = (await listHotends(db)).find(h => h.tag === 'H-01')!
    expect(message(await refusal(work(here.id, { out: [here.parts[0]!.id] })))).toMatch(/H-01 is on Ribble/)
    expect(message(await refusal(work(id, { nozzleOut: true })))).toMatch(/No nozzle is in/)
    // whoever takes its nozzle for a head is asked
    const fit = fittingSchema.parse({ kind: 'fit', nozzleId: taken.nozzle!.id, headId: nidd, occurredAt: ago(0) })
    const { questions } = await refusal(db.transaction(tx => saveFitting(tx, fit, 1)))
    expect(questions!.map(q => q.code)).toEqual(['in-hotend'])
  })
})

describe('from one printer to another', () => {
  test('all that is in it goes along; its sensor is unchecked there, and unchecked when it is back', async () => {
    const one = (await listHotends(db)).find(h => h.tag === 'H-01')!
    const spare = (await listHotends(db)).find(h => h.nozzle?.tag === 'N-20')!
    await check(shop.printerId, ribble, 1)
    expect(await checked(shop.printerId, ribble)).not.toBeNull()
    await change(db, shop.printerId, { hotends: [{ headId: ribble, hotendId: spare.id }] })
    expect(await tagOn(db, ribble)).toBe(spare.tag)
    expect((await headAt(db, ribble, new Date()))?.tag).toBe('N-20')
    const ids = (await of(shop.printerId)).parts.filter(p => p.headId === ribble).map(p => p.id)
    for (const p of spare.parts) expect(ids).toContain(p.id)
    for (const p of one.parts) expect(ids).not.toContain(p.id)
    expect(await checked(shop.printerId, ribble)).toBeNull()
    expect(await hotend(db, one.id)).toMatchObject({ place: null, nozzle: { tag: 'N-1' } })
    await change(db, other.id, { hotends: [{ headId: nidd, hotendId: one.id }], occurredAt: ago(0.08) })
    expect((await headAt(db, nidd, new Date()))?.tag).toBe('N-1')
    expect(await checked(other.id, nidd)).toBeNull()
    expect((await hotend(db, one.id)).parts[0]!.been.map(b => b.words)).toEqual([
      'on Nidd',
      'on the shelf in H-01',
      'on Ribble',
    ])
    // there it is checked by its own check
    await check(other.id, nidd, 0.06)
    expect(await checked(other.id, nidd)).not.toBeNull()
    await change(db, other.id, { hotends: [{ headId: nidd, hotendId: null }], occurredAt: ago(0.05) })
    await change(db, other.id, { hotends: [{ headId: nidd, hotendId: one.id }], occurredAt: ago(0.04) })
    expect(await checked(other.id, nidd)).toBeNull()
  })
  test('what was proved of heater and sensor before counts no more, what was proved of the bed does', async () => {
    for (const guard of ['hotend runaway protection', 'bed runaway protection'])
      await provedNow(db, shop.printerId, guard, ago(0.5))
    const of = async (guard: string) => (await listCutOutTests(db)).find(t => t.guard === guard)!.changed
    expect(await of('hotend runaway protection')).toBe('hotends changed')
    expect(await of('bed runaway protection')).toBeNull()
    await provedNow(db, shop.printerId, 'hotend runaway protection')
    expect(await of('hotend runaway protection')).toBeNull()
  })
  test('the limits are those of what sits there now', async () => {
    const rows = await db.execute<{ limits: { zone: string; part: string }[] }>(
      sql`select limits from stack_ceilings where printer_id = ${shop.printerId}`,
    )
    const hot = rows[0]!.limits.filter(l => l.zone === 'hotend').map(l => l.part)
    expect(hot).not.toContain('sensor')
  })
  test('struck out, parts and nozzle are where they were, the latest first', async () => {
    const changes = await db.execute<{ id: number; p: number }>(sql`
      select c.id::int, c.printer_id p from standing_stack_changes c where c.text = 'hotends changed' order by c.id`)
    const [swap, on] = changes
    expect(message(await refusal(strike(db, 'stack change', swap!.id)))).toMatch(/was changed since/)
    const [nozzle] = await db.execute<{ id: number }>(
      sql`select id::int from standing_fittings where change_id = ${on!.id} limit 1`,
    )
    expect(message(await refusal(strike(db, 'fitting', nozzle!.id)))).toMatch(/moved with its hotend/)
    for (const c of changes.toReversed()) await strike(db, 'stack change', c.id)
    expect([await tagOn(db, ribble), await tagOn(db, nidd)]).toEqual(['H-01', 'H-02'])
    expect((await headAt(db, ribble, new Date()))?.tag).toBe('N-1')
    expect(await headAt(db, nidd, new Date())).toBeNull()
    // as if it had never left, its check counts
    expect(await checked(shop.printerId, ribble)).not.toBeNull()
  })
  test('what does not go is refused at its field', async () => {
    const spare = (await listHotends(db)).find(h => h.nozzle?.tag === 'N-20')!
    const says = async (hotends: object[], more: object = {}) =>
      message(await refusal(change(db, shop.printerId, { hotends, ...more })))
    const two = (await listHotends(db)).find(h => h.tag === 'H-02')!
    expect(await says([{ headId: ribble, hotendId: two.id }])).toBe('H-02 is on Nidd: take it off there first')
    expect(await says([{ headId: nidd, hotendId: spare.id }])).toMatch(/no such head/)
    expect(await says([{ headId: ribble, hotendId: 9999 }])).toBe('This hotend is not known')
    expect(await says([{ headId: ribble, hotendId: spare.id }], { occurredAt: ago(50) })).toMatch(/was changed at/)
    const empty = (await listHotends(db)).find(h => h.parts.length === 0)!
    const now = { occurredAt: ago(0) }
    expect(await says([{ headId: ribble, hotendId: empty.id }], now)).toMatch(/without a temperature sensor/)
    // a head without a hotend takes no nozzle and no part of one
    await change(db, other.id, { hotends: [{ headId: nidd, hotendId: null }] })
    const add = [{ kind: 'silicone sock', headId: nidd }]
    expect(message(await refusal(change(db, other.id, { add })))).toMatch(/No hotend is on this head/)
    const fit = fittingSchema.parse({
      kind: 'fit',
      nozzleId: shop.nozzleId,
      headId: nidd,
      confirmed: ['elsewhere'],
      occurredAt: ago(0),
    })
    expect(message(await refusal(db.transaction(tx => saveFitting(tx, fit, 1))))).toMatch(/No hotend is on this head/)
    await change(db, other.id, { hotends: [{ headId: nidd, hotendId: two.id }], occurredAt: ago(0.09) })
  })
  test('a check of a sensor that nobody described leaves with its hotend', async () => {
    const bare = await db.transaction(tx =>
      addPrinter(
        tx,
        { ...printerEntry('Bare'), parts: [{ kind: 'bed heater', head: null }] } as never,
        1,
        new Date(ago(5)),
      ),
    )
    const headId = bare.headIds[0]!
    await check(bare.id, headId, 1)
    expect(await checked(bare.id, headId)).not.toBeNull()
    const { id } = await putTogether(db, { add: [] })
    await change(db, bare.id, { hotends: [{ headId, hotendId: id }] })
    expect(await checked(bare.id, headId)).toBeNull()
  })
})
