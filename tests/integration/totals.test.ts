/** Totals as a straight count of the log has them, on the shop's own clock; what is struck out is in none. */
import { sql } from 'drizzle-orm'
import { expect, test } from 'vitest'
import { TOTALS_BY } from '#shared/choices'
import { fittingSchema } from '#shared/entries/printers'
import { stockItemFields, stockMoveSchema } from '#shared/entries/stock'
import { upkeepSchema, upkeepTaskFields } from '#shared/entries/upkeep'
import { addPrinter } from '../../server/records/printers/stack-change'
import { saveFitting } from '../../server/records/printers/fittings'
import { addStockItem, saveStockMove } from '../../server/records/stock/items'
import { totalsOf } from '../../server/records/totals/totals'
import { addUpkeepTask } from '../../server/records/upkeep/tasks'
import { saveUpkeep } from '../../server/records/upkeep/upkeep'
import { entriesOf } from './derived-support'
import { ago, freshDatabase, printerEntry, smallShop } from './support'

const { db } = await freshDatabase()
const shop = await smallShop(db)
const { tx, run, strike } = entriesOf(db, shop)

test('by every group, week after week, the parts add up to the whole', async () => {
  for (const [days, grams] of [
    [20, 30],
    [13, 41.5],
    [12.9, 10],
    [1, 55],
  ] as const)
    await run(days, { hours: 2.5 }, grams)
  await run(
    2,
    { hours: null, outcome: 'failed', symptoms: ['stringing'], stoppedAt: { kind: 'percent', value: 50 } },
    8,
  )
  const { runId } = (await run(3, { hours: 9 }, 400)) as { runId: number }
  await strike('run', runId)
  const [straight] = await db.execute<Record<string, number>>(sql`
    select count(distinct r.id)::int runs, sum(t.extruded_g)::float8 g from standing_runs r
    join run_tools t on t.run_id = r.id`)
  for (const by of TOTALS_BY) {
    const t = await totalsOf(db, { by, per: 'week', back: 6 })
    expect(t.periods).toHaveLength(6)
    const whole = t.periods.reduce((s, p) => s + p.extrudedG, 0)
    expect(whole).toBeCloseTo(straight!.g!, 9)
    expect(t.periods.reduce((s, p) => s + p.runs, 0)).toBe(straight!.runs)
    expect(t.periods.reduce((s, p) => s + p.hours, 0)).toBeCloseTo(10, 9)
    expect(t.periods.reduce((s, p) => s + p.withoutHours, 0)).toBe(1)
    const cells = t.groups.flatMap(g => g.cells)
    expect(cells.reduce((s, c) => s + c.extrudedG, 0)).toBeCloseTo(whole, 9)
    expect(cells.reduce((s, c) => s + c.hours, 0)).toBeCloseTo(10, 9)
  }
  const { success } = await totalsOf(db, { by: 'printer', per: 'month', back: 3 })
  const tried = { material: 'PA6-CF20', printer: 'Ribble' }
  expect(success).toEqual([{ ...tried, surface: null, saidBy: null, good: 4, failed: 1 }])
  // what a run says it was printed on stays with it, whatever its card says later
  await run(0.5, { hours: 1, surface: 'pei+glue stick' }, 20)
  await run(0.4, { hours: 1, surface: 'the blue one' }, 20)
  const after = await totalsOf(db, { by: 'nozzle', per: 'month', back: 3 })
  expect(after.success.map(s => [s.surface, s.saidBy, s.good])).toEqual([
    ['PEI + glue stick', 'run', 1],
    ['the blue one', 'run', 1],
    [null, null, 4],
  ])
})

test('a run with two tools of one material is one try, whatever the cards of their nozzles name', async () => {
  const copy = (table: string, id: number, more: object) =>
    db.execute(sql`insert into ${sql.raw(table)} overriding system value
      select (jsonb_populate_record(null::${sql.raw(table)}, to_jsonb(x) || ${JSON.stringify(more)}::jsonb)).*
      from ${sql.raw(table)} x where x.id = ${id}`)
  const { runId } = (await run(0.3, { hours: 1 }, 20)) as { runId: number }
  const [tool] = await db.execute<{ id: number; nozzleId: number; typeId: number }>(sql`
    select t.id::int, n.id "nozzleId", n.type_id "typeId" from run_tools t join nozzles n on n.id = t.nozzle_id
    where t.run_id = ${runId}`)
  await copy('nozzle_types', tool!.typeId, { id: 900, name: 'another' })
  await copy('nozzles', tool!.nozzleId, { id: 900, tag: 'N-900', type_id: 900 })
  await copy('run_tools', tool!.id, { id: 900_000, tool: 1, nozzle_id: 900 })
  await db.execute(sql`insert into cards (material_id, type_id, printer_id, adhesive, created_by)
    values (${shop.materialId}, 900, ${shop.printerId}, 'glass', 1)`)
  const before = await totalsOf(db, { by: 'nozzle', per: 'month', back: 3 })
  const tries = before.success.reduce((sum, s) => sum + s.good + s.failed, 0)
  expect(tries).toBe(before.periods.reduce((sum, p) => sum + p.runs, 0))
  expect(before.success.every(s => s.good + s.failed > 0)).toBe(true)
  expect(before.groups.find(g => g.name === 'N-900')!.cells).toMatchObject([{ runs: 1, hours: 1 }])
  await strike('run', runId)
})

test('a run belongs to the day on the clock of the shop', async () => {
  const dayIn = async (zone: string) => {
    await db.execute(sql`update settings set time_zone = ${zone}`)
    const t = await totalsOf(db, { by: 'printer', per: 'week', back: 10 })
    return t.periods.filter(p => p.runs > 0).map(p => p.from)
  }
  // the same moment is Sunday in one place and Monday in the other
  const [sunday] = await db.execute<{ days: number }>(sql`
    select (extract(epoch from now() - s.sunday) / 86400)::float8 days
    from (select date_trunc('week', now() - interval '35 days') - interval '2 hours' sunday) s`)
  const before = [await dayIn('UTC'), await dayIn('Pacific/Auckland')] as const
  await run(sunday!.days, {}, 5)
  const after = [await dayIn('UTC'), await dayIn('Pacific/Auckland')] as const
  const added = [0, 1].map(i => after[i]!.filter(d => !before[i]!.includes(d)))
  expect(added.map(a => a.length)).toEqual([1, 1])
  expect(Date.parse(added[1]![0]!) - Date.parse(added[0]![0]!)).toBe(7 * 86_400_000)
  await db.execute(sql`update settings set time_zone = 'UTC'`)
})

test('what is retired and taken from the shelf costs what was entered, and what was not is counted', async () => {
  const { id: itemId } = await tx(c =>
    addStockItem(c, stockItemFields.parse({ kind: 'belt', name: 'Belt', price: 7.5, pricedOn: '2026-01-31' }), 1),
  )
  const bare = await tx(c => addStockItem(c, stockItemFields.parse({ kind: 'tube', name: 'Tube' }), 1))
  for (const id of [itemId, bare.id])
    for (const kind of ['counted', 'used'] as const)
      await tx(c =>
        saveStockMove(
          c,
          stockMoveSchema.parse({ itemId: id, kind, quantity: 2, occurredAt: ago(kind === 'counted' ? 0.02 : 0.01) }),
          1,
        ),
      )
  const gone = { kind: 'retire', nozzleId: shop.nozzleId, headId: null, reason: 'worn', occurredAt: ago(0.01) }
  await tx(c => saveFitting(c, fittingSchema.parse({ ...gone, confirmed: ['not-fitted'] }), 1))
  const now = async () => (await totalsOf(db, { by: 'printer', per: 'month', back: 2 })).periods.at(-1)!
  await db.execute(sql`update settings set prices = '{}'`)
  expect(await now()).toMatchObject({ spent: { retired: 1, cost: 15, unpriced: 2 } })
  await db.execute(sql`update settings set prices = '{"nozzle hardened steel": {"price": 20, "minutes": 30}}',
    labour_per_hour = 30, downtime_per_hour = 10, downtime_hours = 1, scrap_per_swap = 2`)
  // 20 for it, half an hour of labour, an hour of standing, scrap
  expect(await now()).toMatchObject({ spent: { cost: 15 + 20 + 15 + 10 + 2, unpriced: 1 } })
  // by the printer it was taken off, the nozzle itself, who retired it; a material has no nozzle of its own
  for (const by of TOTALS_BY) {
    const { groups, spentBeside } = await totalsOf(db, { by, per: 'month', back: 3 })
    expect(groups[0]!.nozzles).toBe(1)
    const spent = groups[0]!.cells.at(-1)!.spent
    // by hand from the shelf: known is who, not where
    const byHand = { retired: 0, cost: 15, unpriced: 1 }
    if (by === 'material') expect([spent, spentBeside]).toEqual([null, null])
    else if (by === 'person') expect([spent, spentBeside]).toEqual([{ retired: 1, cost: 62, unpriced: 1 }, null])
    else expect([spent, spentBeside]).toEqual([{ retired: 1, cost: 47, unpriced: 0 }, byHand])
  }
  // for the upkeep of a printer: its printer's, also where nothing was printed there
  const { id: other } = await tx(c => addPrinter(c, printerEntry('Swale'), 1))
  const fields = { printerId: other, kind: 'belts', name: 'Belts', basis: 'practice', everyDays: 90 }
  const planned = upkeepTaskFields.parse({ ...fields, stockItemId: itemId, stockQuantity: 1 })
  const { id: taskId } = await tx(c => addUpkeepTask(c, planned, 1))
  const kept = upkeepSchema.parse({ taskId, found: 'replaced', occurredAt: ago(0.001), took: 1 })
  await tx(c => saveUpkeep(c, kept, 1))
  const { groups, spentBeside } = await totalsOf(db, { by: 'printer', per: 'month', back: 3 })
  expect(groups.find(g => g.name === 'Swale')).toMatchObject({
    nozzles: 0,
    cells: [{ runs: 0, extrudedG: 0, spent: { retired: 0, cost: 7.5, unpriced: 0 } }],
  })
  expect(spentBeside).toEqual({ retired: 0, cost: 15, unpriced: 1 })
})
