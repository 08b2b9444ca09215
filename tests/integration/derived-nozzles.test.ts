/**
 * What is kept because it is read often is what a fresh reading of the whole log gives, to the last digit, whatever is
 * entered, entered late, edited or struck out; and nothing that was worked out before counts after it.
 */
import { sql } from 'drizzle-orm'
import { describe, expect, test } from 'vitest'
import { pooledPrior, priorMoved, sumTerms } from '#core/wear'
import { fittingSchema } from '#shared/entries/printers'
import { nozzleSchema } from '#shared/entries/nozzles'
import { editRecord } from '../../server/records/entry/edits'
import { equip } from '../../server/records/bench/equip'
import { saveGauge } from '../../server/records/nozzles/gauges'
import { refreshMissing, refreshStale } from '../../server/records/nozzles/forecasts'
import { addNozzle } from '../../server/records/nozzles/nozzles'
import { mendSums, sistersPrior } from '../../server/records/nozzles/sisters'
import { saveFitting } from '../../server/records/printers/fittings'
import { saveRun } from '../../server/records/runs/runs'
import { entriesOf } from './derived-support'
import { ago, freshDatabase, gaugeEntry, runEntry, smallShop } from './support'

const { db } = await freshDatabase()
const shop = await smallShop(db)
const { tx, run, strike } = entriesOf(db, shop)
let runs = 0

/** Where a nozzle is and what it did last, straight from the log. */
const straight = () =>
  db.execute(sql`
    select n.id nozzle_id, e.kind, e.head_id, e.hotend_id, e.reason, e.occurred_at since,
      (select max(occurred_at) from standing_gauges g where g.nozzle_id = n.id) last_gauged_at, l.abrasivity,
      l.material_name
    from nozzles n
    left join lateral (select * from standing_fittings f where f.nozzle_id = n.id
      order by f.occurred_at desc, f.id desc limit 1) e on true
    left join lateral (select abrasivity, material_name from standing_run_tools t where t.nozzle_id = n.id
      and t.filler_fraction > 0 order by ended_at desc, run_id desc limit 1) l on true order by n.id`)
const keptStands = () =>
  db.execute(sql`select nozzle_id, kind, head_id, hotend_id, reason, since, last_gauged_at, abrasivity, material_name
    from nozzle_stands order by nozzle_id`)
/** The same of what went through by day and material. */
const straightDays = () =>
  db.execute(sql`
    select day_of(t.ended_at)::text as day, t.material_id, round(sum(t.extruded_g)::numeric, 6)::text g,
      min(t.set_c) filter (where r.outcome = 'finished') low, max(r.bed_set_c) filter (where r.outcome = 'finished') bed
    from standing_run_tools t join runs r on r.id = t.run_id group by 1, 2 order by 1, 2`)
const keptDays = () =>
  db.execute(sql`
    select day::text as day, material_id, round(extruded_g::numeric, 6)::text g, nozzle_low low, bed_high bed
    from material_days order by 1, 2`)

describe('where nozzles are and what went through by day', () => {
  const agree = async () => {
    expect([...(await keptStands())]).toEqual([...(await straight())])
    expect([...(await keptDays())]).toEqual([...(await straightDays())])
  }
  test('through gauges, runs, fittings and strikes, late ones too', async () => {
    const { id } = await tx(c =>
      addNozzle(c, nozzleSchema.parse({ tag: 'N-2', typeId: shop.typeId, receivedAt: ago(9) }), 1),
    )
    await agree()
    const { runId } = await run(0.4, { bedSetC: 95 }, 30)
    await run(0.3, { outcome: 'failed', bedSetC: 99 }, 5)
    await agree()
    const gauge = await tx(c => saveGauge(c, gaugeEntry(shop, { goMm: 0.4, noGoMm: 0.41, occurredAt: ago(0.2) }), 1))
    await agree()
    await tx(c =>
      saveFitting(c, fittingSchema.parse({ kind: 'fit', nozzleId: id, headId: shop.headId, occurredAt: ago(0.1) }), 1),
    )
    await agree()
    await strike('run', runId)
    await strike('gauge', gauge.gaugeId)
    await agree()
    await strike('fitting', (await db.execute<{ id: number }>(sql`select max(id)::int id from fittings`))[0]!.id)
    await agree()
  })
  test('ten runs of one day and material at once: the day has all of them', async () => {
    await Promise.all(Array.from({ length: 10 }, (_, i) => run(0.01 + i / 1e5, {}, 1)))
    await agree()
    expect((await equip(db)).mix[0]!.materialId).toBe(shop.materialId)
  })
})

describe('what nozzles tell each other', () => {
  const terms = () =>
    db.execute<{ t: number[] }>(sql`select sister_term t from forecasts where sister_term is not null`)
  const kept = async () =>
    (await db.execute<{ sum: number[]; sisters: number }>(sql`select sum, sisters from sister_sums`))[0]!
  const gauged = async (tag: string, goMm: number) => {
    const { id: nozzleId } = await tx(c =>
      addNozzle(c, nozzleSchema.parse({ tag, typeId: shop.typeId, receivedAt: ago(9) }), 1),
    )
    await tx(c =>
      saveRun(
        c,
        runEntry(
          { ...shop, nozzleId },
          { name: tag, endedAt: ago(0.02), confirmed: ['same-run:0', 'not-fitted:0', `over-spool:${shop.spoolId}`] },
          { kind: 'grams', grams: 900 + ++runs },
        ),
        1,
      ),
    )
    return await tx(c =>
      saveGauge(
        c,
        gaugeEntry(
          { ...shop, nozzleId },
          { goMm, noGoMm: goMm + 0.01, occurredAt: ago(0.005), confirmed: ['unexpected-bore:as-read'] },
        ),
        1,
      ),
    )
  }
  test('the kept sum is that of all terms, bit for bit, also after some were taken out again', async () => {
    const ids: number[] = []
    for (let i = 0; i < 6; i++) ids.push((await gauged(`N-1${i}`, 0.4 + i / 200)).gaugeId)
    await strike('gauge', ids[2]!)
    const sum = sumTerms((await terms()).map(r => Float64Array.from(r.t)))!
    expect((await kept()).sum).toEqual(Array.from(sum))
    expect((await kept()).sisters).toBe((await terms()).length)
  })
  test('thrown away, all or a part of it, it is made again', async () => {
    const before = await kept()
    await db.execute(sql`delete from forecasts where nozzle_id = (select max(nozzle_id) from forecasts)`)
    await refreshMissing(db)
    expect(await kept()).toEqual(before)
    await db.execute(sql`delete from sister_sums`)
    await mendSums(db)
    expect(await kept()).toEqual(before)
  })
  test('sisters are worked out anew when what they are told moves by 2 % of its spread, else left alone', async () => {
    while ((await refreshStale(db)) > 0);
    const told = (await sistersPrior(db, 'hardened steel', null)).prior
    await tx(c => saveGauge(c, gaugeEntry(shop, { tipMm: 12.49, occurredAt: ago(0.001) }), 1)) // nothing of its bore
    const [none] = await db.execute<{ n: number }>(sql`select count(*)::int n from forecasts where stale`)
    expect(none!.n).toBe(0)
    await gauged('N-30', 0.47)
    const now = (await sistersPrior(db, 'hardened steel', null)).prior
    expect(priorMoved(told, now)).toBeGreaterThan(0.02)
    const rows = await db.execute<{ stale: boolean; moved: number | null }>(
      sql`select stale, moved from forecasts where nozzle_id <> (select max(id) from nozzles)`,
    )
    expect(rows.every(r => r.stale && r.moved !== null && r.moved > 0.02)).toBe(true)
    while ((await refreshStale(db)) > 0);
    expect(pooledPrior('hardened steel', Float64Array.from((await kept()).sum), (await kept()).sisters)).toEqual(now)
  })
  test('a type of another material leaves them', async () => {
    const [type] = await db.execute<{ version: number }>(
      sql`select version from nozzle_types where id = ${shop.typeId}`,
    )
    await tx(c => editRecord(c, 'nozzle-types', shop.typeId, type!.version, { material: 'brass' }, 1))
    while ((await refreshStale(db)) > 0);
    const sums = await db.execute<{ material: string; sisters: number }>(
      sql`select material, sisters from sister_sums order by material`,
    )
    expect([...sums]).toEqual([
      { material: 'brass', sisters: (await terms()).length },
      { material: 'hardened steel', sisters: 0 },
    ])
  })
})
