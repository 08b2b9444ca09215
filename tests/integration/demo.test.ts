/** The demo goes through the same records as real entries, once, and is the same every time. */
import { sql } from 'drizzle-orm'
import { expect, test } from 'vitest'
import { loadDemo } from '../../demo/load'
import { floor } from '../../server/records/bench/floor'
import { freshDatabase } from './support'

const anchor = new Date('2026-11-20T12:00:00Z')
const one = await freshDatabase()
const other = await freshDatabase()

test('loaded once, with the shop that the design asks for', async () => {
  expect(await loadDemo(one.db, anchor)).toBe(true)
  const [n] = await one.db.execute<Record<string, number>>(sql`
    select (select count(*)::int from printers) printers, (select count(*)::int
    from nozzles) nozzles, (select count(*)::int from spools) spools, (select count(*)::int from runs) runs,
      (select count(*)::int from gauges where kind = 'service') gauges, (select count(*)::int
      from strikes) strikes, (select count(*)::int from jobs) jobs,
      (select extract(day from max(ended_at) - min(ended_at))::int from runs) days, (select count(*)::int
      from forecasts where stale) stale`)
  expect(n).toMatchObject({ printers: 6, nozzles: 40, spools: 30, stale: 0 })
  expect(n!.runs).toBeGreaterThan(600)
  expect(n!.gauges).toBeGreaterThan(40)
  expect(n!.days).toBeGreaterThan(400)
  expect(n!.strikes).toBeGreaterThan(0)
  expect(await loadDemo(one.db, new Date())).toBe(false)
  const [again] = await one.db.execute<{ n: number }>(sql`select count(*)::int n from runs`)
  expect(again!.n).toBe(n!.runs)
}, 120_000)

test('totals are those of the log, added up another way', async () => {
  const rows = await one.db.execute<{ tag: string; stored: number; summed: number }>(sql`
    select n.tag, f.wear_kg stored, coalesce((
      select sum(case when t.filler_fraction > 0 then t.abrasivity * t.filler_fraction * t.extruded_g / 1000
      else t.abrasivity * t.extruded_g / 1000 end)
      from run_tools t left join strikes s on s.target = 'run' and s.target_id = t.run_id
      where t.nozzle_id = n.id and s.id is null), 0) summed
    from nozzles n join forecasts f on f.nozzle_id = n.id`)
  expect(rows).toHaveLength(40)
  for (const r of rows) expect(r.stored, r.tag).toBeCloseTo(r.summed, 9)
})

test('the same seed and anchor give the same shop', async () => {
  await loadDemo(other.db, anchor)
  const print = sql`select md5(string_agg(t::text, '' order by t.ended_at, t.nozzle_id, t.extruded_g)) m
    from (select ended_at, nozzle_id, extruded_g, fibre_g, wear_kg, material_name from run_tools) t`
  const [a] = await one.db.execute<{ m: string }>(print)
  const [b] = await other.db.execute<{ m: string }>(print)
  expect(a!.m).toBe(b!.m)
}, 120_000)

test('the Floor tells the stories: a stopped printer, a gauge that is due, a retired insert', async () => {
  const f = await floor(one.db)
  expect(f.printers.map(p => p.name)).toEqual(['Calder', 'Ribble', 'Wharfe', 'Aire', 'Swale', 'Nidd'])
  expect(f.printers.find(p => p.name === 'Aire')!.verdict).toBe('stop')
  expect(f.bench[0]).toMatchObject({ printer: 'Aire', verdict: 'stop', reason: expect.stringContaining('275 °C') })
  expect(f.printers.find(p => p.name === 'Ribble')!.heads[0]!.nozzle!.tag).toBe('N-014')
  const [failures] = await one.db.execute<{ n: number }>(
    sql`select count(*)::int n from fittings where kind = 'retire'
      and reason in ('insert came out during a job', 'worn oval by carbon fibre')`,
  )
  expect(failures!.n).toBe(2)
})
