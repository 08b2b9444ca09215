/** What the shop did by week or month on its own clock, straight from the runs of that time. */
import { sql, type SQL } from 'drizzle-orm'
import { swapCost } from '#core/money'
import type { Totals, TotalsSpent, TotalsSums } from '#shared/answers/totals'
import type { TOTALS_BY, TOTALS_PER } from '#shared/choices'
import type { Connection } from '../../db/client'
import { shopSettings } from '../shop/settings'

export interface TotalsAsked {
  by: (typeof TOTALS_BY)[number]
  per: (typeof TOTALS_PER)[number]
  back: number
}
/** Groups that are told one by one; what the others did is in the sums of the whole shop. */
const MOST_GROUPS = 60

/** Whose a run, or a tool of it, is, and where what is of the run counts for it. */
const GROUP: Record<TotalsAsked['by'], { id: SQL; name: SQL; once: SQL }> = {
  printer: { id: sql`r.printer_id`, name: sql`select id, name from printers`, once: sql`once` },
  person: { id: sql`r.person_id`, name: sql`select id, name from people`, once: sql`once` },
  material: { id: sql`t.material_id`, name: sql`select id, name from materials`, once: sql`once_of_material` },
  nozzle: { id: sql`t.nozzle_id`, name: sql`select id, tag "name" from nozzles`, once: sql`once_of_nozzle` },
}

/** Without a day it is all of the periods together. */
type Row = Omit<TotalsSums, 'from'> & { from: string | null; id: number; name: string; group: number }
interface Done extends Record<string, unknown> {
  whole: TotalsSums[]
  rows: Row[]
  success: Totals['success']
}
/** Whether a tool is the first of its kind: what is of a run is taken of that one alone. */
const once = (of: SQL) => sql`row_number() over (partition by ${of} order by t.tool) = 1`
/** What is of runs, counted once for the shop or once for whoever the cell is of. */
const ofRuns = (counts: SQL, whose: 'shop' | 'own') => {
  const name = (of: string) => sql.raw(`${whose}_${of}`)
  return sql`count(*) filter (where ${counts}) ${name('runs')},
    count(*) filter (where ${counts} and failed) ${name('failed')},
    sum(hours) filter (where ${counts}) ${name('hours')},
    count(*) filter (where ${counts} and hours is null) ${name('unknown')}`
}
/** Cells `c` together. */
const sumsOf = (whose: 'shop' | 'own') => {
  const sum = (of: string) => sql.raw(`coalesce(sum(c.${of}), 0)`)
  return sql`${sum(`${whose}_runs`)} runs, ${sum(`${whose}_failed`)} failed, ${sum('g')} "extrudedG",
    ${sum('filled')} "filledG", ${sum('fibre')} "fibreG", ${sum(`${whose}_hours`)} hours,
    ${sum(`${whose}_unknown`)} "withoutHours", count(distinct c.nozzle_id) nozzles`
}

/** Whose a nozzle that was retired, or a thing that was taken, is: nobody's where the log does not tell. */
interface Whose {
  from: string
  printer: { id: number; name: string } | null
  person: { id: number; name: string }
  nozzle: { id: number; name: string } | null
}
type Retired = Whose & { material: string } & Record<string, unknown>
type Taken = Whose & { quantity: number; price: number | null } & Record<string, unknown>
/** The same with what it cost; null where no price is entered. */
type Spending = Whose & { cost: number | null; isRetired: boolean }

export async function totalsOf(db: Connection, { by, per, back }: TotalsAsked): Promise<Totals> {
  const settings = await shopSettings(db)
  const unit = sql.raw(`'${per}'`)
  const zone = sql`${settings.timeZone}::text`
  const first = sql`(date_trunc(${unit}, now() at time zone ${zone}) - ${back - 1} * interval '1 ${sql.raw(per)}')`
  const periodOf = (at: SQL) => sql`date_trunc(${unit}, ${at} at time zone ${zone})::date::text`
  const inTime = (at: SQL) => sql`${at} >= ${first} at time zone ${zone}`
  const group = GROUP[by]
  const [done, retired, taken] = await Promise.all([
    // one pass over the runs of that time: a run counts once for the shop, and once for whoever it is of, however many
    // tools it had
    sorting(
      db,
      sql`
      with done as materialized (
        select ${periodOf(sql`r.ended_at`)} "from", ${group.id} "group", r.id, r.outcome = 'failed' failed, r.hours,
          r.printer_id, r.surface, t.material_id, t.material_name, t.nozzle_id, t.extruded_g g,
          case when t.filler_fraction > 0 then t.extruded_g end filled,
          case when t.filler_fraction > 0 then t.fibre_g end fibre,
          ${once(sql`r.id`)} once, ${once(sql`r.id, t.material_id`)} once_of_material
          ${by === 'nozzle' ? sql`, ${once(sql`r.id, t.nozzle_id`)} once_of_nozzle` : sql``}
        from standing_runs r join run_tools t on t.run_id = r.id where ${inTime(sql`r.ended_at`)}
      ), cells as materialized (
        select "from", "group", nozzle_id, sum(g) g, sum(filled) filled, sum(fibre) fibre,
          ${ofRuns(sql`once`, 'shop')}, ${ofRuns(group.once, 'own')}
        from done group by 1, 2, 3
      ), tried as materialized (
        select material_id, material_name, printer_id, surface, nozzle_id,
          count(*) filter (where once_of_material and not failed) good,
          count(*) filter (where once_of_material and failed) failed
        from done d where not exists (select from flow_bench_runs f where f.run_id = d.id) group by 1, 2, 3, 4, 5
      )
      select (select json_agg(x order by x."from") from (
        select p."from", ${sumsOf('shop')}
        from (select g::date::text "from" from generate_series(${first}, now() at time zone ${zone},
          interval '1 ${sql.raw(per)}') g) p left join cells c on c."from" = p."from" group by 1) x) whole,
      (select coalesce(json_agg(x order by x.id, x."from"), '[]') from (
        select g.id, g.name, x.* from (select c."group", c."from", ${sumsOf('own')} from cells c
          group by grouping sets ((1, 2), (1))) x join (${group.name}) g on g.id = x."group") x) rows,
      (select coalesce(json_agg(x order by x.material, x.printer, x.surface), '[]') from (
        select t.material_name material, p.name printer, coalesce(t.surface, nullif(c.adhesive, '')) surface,
          case when t.surface is not null then 'run' when c.adhesive <> '' then 'card' end "saidBy",
          sum(t.good) good, sum(t.failed) failed
        from tried t join printers p on p.id = t.printer_id join nozzles n on n.id = t.nozzle_id
        left join cards c on c.material_id = t.material_id and c.printer_id = t.printer_id and c.type_id = n.type_id
        group by 1, 2, 3, 4
        having sum(t.good) + sum(t.failed) > 0) x) success`,
    ),
    db.execute<Retired>(sql`
      select ${periodOf(sql`f.occurred_at`)} "from", y.material, ${whose(sql`p`)} "printer", ${whose(sql`u`)} "person",
        jsonb_build_object('id', n.id, 'name', n.tag) "nozzle"
      from standing_fittings f join people u on u.id = f.person_id
      join nozzles n on n.id = f.nozzle_id join nozzle_types y on y.id = n.type_id
      left join printers p on p.id = (select h.printer_id from standing_fittings g join heads h on h.id = g.head_id
        where g.nozzle_id = f.nozzle_id and g.kind = 'fit' and (g.occurred_at, g.id) < (f.occurred_at, f.id)
        order by g.occurred_at desc, g.id desc limit 1)
      where f.kind = 'retire' and ${inTime(sql`f.occurred_at`)}`),
    db.execute<Taken>(sql`
      select ${periodOf(sql`m.occurred_at`)} "from", m.quantity, i.price, ${whose(sql`p`)} "printer",
        ${whose(sql`u`)} "person", null "nozzle"
      from standing_stock_moves m join stock_items i on i.id = m.item_id join people u on u.id = m.person_id
      left join upkeep_entries e on e.id = m.upkeep_id left join procedures c on c.id = m.procedure_id
      left join printers p on p.id = coalesce(e.printer_id, c.printer_id)
      where m.kind in ('used', 'scrapped') and ${inTime(sql`m.occurred_at`)}`),
  ])
  const priceOf = (r: Retired) => {
    const p = settings.prices[`nozzle ${r.material}`]
    return p === undefined ? null : p.price + swapCost(p.minutes, settings)
  }
  const spendings: Spending[] = [
    ...retired.map(r => ({ ...r, cost: priceOf(r), isRetired: true })),
    ...taken.map(t => ({ ...t, cost: t.price === null ? null : t.price * t.quantity, isRetired: false })),
  ]
  return {
    by,
    per,
    periods: done.whole.map(p => ({ ...p, spent: spentIn(spendings.filter(s => s.from === p.from)) })),
    groups: grouped(done.rows, by === 'material' ? null : { by, spendings }),
    spentBeside: by === 'material' ? null : spentBeside(spendings.filter(s => s[by] === null)),
    success: done.success,
    currency: settings.currency,
  }
}

/** The runs of months are sorted in memory: of a large shop they are more than a query usually has. */
const sorting = (db: Connection, query: SQL): Promise<Done> =>
  db.transaction(async tx => {
    await tx.execute(sql`set local work_mem = '32MB'`)
    const [done] = await tx.execute<Done>(query)
    return done!
  })

/** A joined row with its name; null where nothing joined. */
const whose = (row: SQL) =>
  sql`case when ${row}.id is not null then jsonb_build_object('id', ${row}.id, 'name', ${row}.name) end`

const plus = (sum: TotalsSpent, s: Spending): TotalsSpent => ({
  retired: sum.retired + Number(s.isRetired),
  cost: sum.cost + (s.cost ?? 0),
  unpriced: sum.unpriced + Number(s.cost === null),
})
const NOTHING_SPENT: TotalsSpent = { retired: 0, cost: 0, unpriced: 0 }
const spentIn = (spendings: readonly Spending[]) => spendings.reduce(plus, NOTHING_SPENT)
const spentBeside = (spendings: readonly Spending[]) => (spendings.length === 0 ? null : spentIn(spendings))

type Group = Totals['groups'][number]
/** What a period of a group has where nothing was printed. */
const NOTHING = {
  runs: 0,
  failed: 0,
  extrudedG: 0,
  filledG: 0,
  fibreG: 0,
  hours: 0,
  withoutHours: 0,
  nozzles: 0,
}

/** Rows and what was spent by their group, those with the most grams first. */
function grouped(
  rows: readonly Row[],
  spent: { by: Exclude<TotalsAsked['by'], 'material'>; spendings: readonly Spending[] } | null,
): Group[] {
  const groups = new Map<number, Group>()
  const groupOf = (id: number, name: string) => {
    const g = groups.get(id) ?? { id, name, cells: [], nozzles: 0 }
    groups.set(id, g)
    return g
  }
  for (const { id, name, group: _, from, ...sums } of rows) {
    const g = groupOf(id, name)
    if (from === null) g.nozzles = sums.nozzles
    else g.cells.push({ ...(sums as Omit<TotalsSums, 'from'>), from, spent: spent && NOTHING_SPENT })
  }
  for (const s of spent?.spendings ?? []) {
    const of = s[spent!.by]
    if (of === null) continue
    const { cells } = groupOf(of.id, of.name)
    const cell = cells.find(c => c.from === s.from)
    if (cell) cell.spent = plus(cell.spent!, s)
    else cells.push({ ...NOTHING, from: s.from, spent: plus(NOTHING_SPENT, s) })
  }
  for (const g of groups.values()) g.cells.sort((a, b) => a.from.localeCompare(b.from))
  const grams = (g: Group) => g.cells.reduce((s, c) => s + c.extrudedG, 0)
  return [...groups.values()].sort((a, b) => grams(b) - grams(a)).slice(0, MOST_GROUPS)
}
