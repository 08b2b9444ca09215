/** What the shop did by week or month on its own clock, straight from the runs of that time. */
import { sql, type SQL } from 'drizzle-orm'
import { swapCost } from '#core/money'
import type { TOTALS_BY, TOTALS_PER, Totals, TotalsSums } from '#shared/answers/totals'
import type { Connection } from '../../db/client'
import { shopSettings } from '../shop/settings'

export interface TotalsAsked {
  by: (typeof TOTALS_BY)[number]
  per: (typeof TOTALS_PER)[number]
  back: number
}
/** Groups that are told one by one; what the others did is in the sums of the whole shop. */
const MOST_GROUPS = 60

/** Whose a run, or a tool of it, is. */
const GROUP: Record<TotalsAsked['by'], { id: SQL; name: SQL }> = {
  printer: { id: sql`r.printer_id`, name: sql`select id, name from printers` },
  person: { id: sql`r.person_id`, name: sql`select id, name from people` },
  material: { id: sql`t.material_id`, name: sql`select id, name from materials` },
  nozzle: { id: sql`t.nozzle_id`, name: sql`select id, tag "name" from nozzles` },
}

/** Without a day it is all of the periods together. */
type Row = Omit<TotalsSums, 'from'> & { from: string | null; id: number; name: string } & Record<string, unknown>
interface Retired extends Record<string, unknown> {
  from: string
  material: string
  nozzle: number
  person: number
  printer: number | null
}

export async function totalsOf(db: Connection, { by, per, back }: TotalsAsked): Promise<Totals> {
  const settings = await shopSettings(db)
  const unit = sql.raw(`'${per}'`)
  const zone = sql`${settings.timeZone}::text`
  const first = sql`(date_trunc(${unit}, now() at time zone ${zone}) - ${back - 1} * interval '1 ${sql.raw(per)}')`
  const periodOf = (at: SQL) => sql`date_trunc(${unit}, ${at} at time zone ${zone})::date::text`
  const inTime = (at: SQL) => sql`${at} >= ${first} at time zone ${zone}`
  const sums = sql`count(distinct r.id)::int runs, count(distinct r.id) filter (where r.outcome = 'failed')::int failed,
    coalesce(sum(t.extruded_g), 0)::float8 "extrudedG",
    coalesce(sum(t.extruded_g) filter (where t.filler_fraction > 0), 0)::float8 "filledG",
    coalesce(sum(t.fibre_g) filter (where t.filler_fraction > 0), 0)::float8 "fibreG",
    coalesce(sum(r.hours) filter (where t.once), 0)::float8 hours,
    count(distinct r.id) filter (where r.hours is null)::int "withoutHours",
    count(distinct t.nozzle_id)::int nozzles`
  // the hours of a run count once for whoever it is of, however many tools it had
  const of = (key: SQL) => sql`standing_runs r join lateral (
      select t.*, row_number() over (partition by r.id, ${key} order by t.tool) = 1 once from run_tools t
      where t.run_id = r.id) t on true`
  const group = GROUP[by]
  const [whole, rows, success, retired, used] = await Promise.all([
    db.execute<TotalsSums & Record<string, unknown>>(sql`
      with done as (select ${periodOf(sql`r.ended_at`)} "from", ${sums} from ${of(sql`r.id`)}
        where ${inTime(sql`r.ended_at`)} group by 1)
      select p."from", coalesce(d.runs, 0) runs, coalesce(d.failed, 0) failed, coalesce(d."extrudedG", 0) "extrudedG",
        coalesce(d."filledG", 0) "filledG", coalesce(d."fibreG", 0) "fibreG", coalesce(d.hours, 0) hours,
        coalesce(d."withoutHours", 0) "withoutHours", coalesce(d.nozzles, 0) nozzles
      from (select g::date::text "from" from generate_series(${first}, now() at time zone ${zone},
        interval '1 ${sql.raw(per)}') g) p left join done d on d."from" = p."from" order by 1`),
    db.execute<Row>(sql`
      select g.id, g.name, x.* from (select ${group.id} "group", ${periodOf(sql`r.ended_at`)} "from", ${sums}
        from ${of(group.id)} where ${inTime(sql`r.ended_at`)} group by grouping sets ((1, 2), (1))) x
      join (${group.name}) g on g.id = x."group" order by g.id, x."from"`),
    db.execute<Totals['success'][number] & Record<string, unknown>>(sql`
      select t.material_name "material", p.name "printer", nullif(c.adhesive, '') "adhesive",
        count(distinct r.id) filter (where r.outcome = 'finished')::int good,
        count(distinct r.id) filter (where r.outcome = 'failed')::int failed
      from standing_runs r join run_tools t on t.run_id = r.id join printers p on p.id = r.printer_id
      join nozzles n on n.id = t.nozzle_id
      left join cards c on c.material_id = t.material_id and c.printer_id = r.printer_id and c.type_id = n.type_id
      where ${inTime(sql`r.ended_at`)} and not exists (select from flow_bench_runs f where f.run_id = r.id)
      group by 1, 2, 3 order by 1, 2, 3`),
    db.execute<Retired>(sql`
      select ${periodOf(sql`f.occurred_at`)} "from", y.material, f.nozzle_id "nozzle", f.person_id "person",
        (select h.printer_id from standing_fittings g join heads h on h.id = g.head_id where g.nozzle_id = f.nozzle_id
          and g.kind = 'fit' and (g.occurred_at, g.id) < (f.occurred_at, f.id)
          order by g.occurred_at desc, g.id desc limit 1) "printer"
      from standing_fittings f
      join nozzles n on n.id = f.nozzle_id join nozzle_types y on y.id = n.type_id
      where f.kind = 'retire' and ${inTime(sql`f.occurred_at`)}`),
    db.execute<{ from: string; quantity: number; price: number | null }>(sql`
      select ${periodOf(sql`m.occurred_at`)} "from", m.quantity, i.price from standing_stock_moves m
      join stock_items i on i.id = m.item_id
      where m.kind in ('used', 'scrapped') and ${inTime(sql`m.occurred_at`)}`),
  ])
  const priceOf = (r: Retired) => {
    const p = settings.prices[`nozzle ${r.material}`]
    return p === undefined ? null : p.price + swapCost(p.minutes, settings)
  }
  const costOf = (from: string) =>
    addedUp([
      ...retired.filter(r => r.from === from).map(priceOf),
      ...used.filter(u => u.from === from).map(u => (u.price === null ? null : u.price * u.quantity)),
    ])
  const retiredBy = (id: number) => {
    if (by === 'material') return null
    const own = retired.filter(r => r[by] === id)
    return { count: own.length, ...addedUp(own.map(priceOf)) }
  }
  return {
    by,
    per,
    periods: whole.map(p => ({
      ...p,
      retired: retired.filter(r => r.from === p.from).length,
      ...costOf(p.from),
    })),
    groups: grouped(rows).map(g => ({ ...g, retired: retiredBy(g.id) })),
    success: [...success],
    currency: settings.currency,
  }
}

/** Prices together, and how many of them nobody entered. */
function addedUp(prices: readonly (number | null)[]): { cost: number; unpriced: number } {
  const known = prices.filter(p => p !== null)
  return { cost: known.reduce((s, p) => s + p, 0), unpriced: prices.length - known.length }
}

type Group = Omit<Totals['groups'][number], 'retired'>
/** Rows by their group, those with the most grams first. */
function grouped(rows: readonly Row[]): Group[] {
  const groups = new Map<number, Group>()
  for (const { id, name, group: _, ...cell } of rows) {
    const g = groups.get(id) ?? { id, name, cells: [], nozzles: 0 }
    if (cell.from === null) g.nozzles = cell.nozzles
    else g.cells.push(cell as TotalsSums)
    groups.set(id, g)
  }
  const grams = (g: Group) => g.cells.reduce((s, c) => s + c.extrudedG, 0)
  return [...groups.values()].sort((a, b) => grams(b) - grams(a)).slice(0, MOST_GROUPS)
}
