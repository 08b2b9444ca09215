/** What is on the shelf, what will be wanted of it by the forecasts and by its use, and what to order. */
import { sql } from 'drizzle-orm'
import {
  ENOUGH_SURE,
  enoughByUse,
  enoughFor,
  needChances,
  toOrder,
  type HeadWear,
  type StockKind,
  type StockUnit,
  type UsedBy,
} from '#core/stock'
import type { Life } from '#core/life'
import { dueOfStock, PROBABLY_PAST, type Due } from '#core/schedule'
import type { Stock, StockLine, StockMoveLine } from '#shared/answers/stock'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { daysOf } from '../../db/lately'
import { typeLives } from '../nozzles/lives'
import { shopSettings } from '../shop/settings'

/** What was logged of the shelf, that the page lists. */
const MOST_MOVES = 30
/** What goes through a head a day is told by so many days, or by as many as it has been here. */
const LATELY_DAYS = 56
/** How often something is used is told by so many days at most. */
const USE_DAYS = 365
/** A forecast without an end is kept as this many kg. */
const ENDLESS_KG = 1e9

interface ItemRow {
  id: number
  kind: StockKind
  name: string
  unit: StockUnit
  nozzleTypeId: number | null
  minimum: number | null
  usedBy: UsedBy | null
  price: number | null
  pricedOn: string | null
  note: string
  withdrawn: boolean
  version: number
  onHand: number
  onOrder: number
  countedAt: string | null
}
/** What is kept, or nozzles of a type for which nobody set a minimum. */
type Item = Omit<ItemRow, 'id' | 'version'> & { id: number | null; version: number | null }
const unkeptItem = ({ id, name }: { id: number; name: string }): Item => ({
  id: null,
  version: null,
  kind: 'nozzle',
  name,
  unit: 'pieces',
  nozzleTypeId: id,
  minimum: null,
  usedBy: null,
  price: null,
  pricedOn: null,
  note: '',
  withdrawn: false,
  onHand: 0,
  onOrder: 0,
  countedAt: null,
})
const itemRows = (db: Connection) =>
  db.execute<ItemRow & Record<string, unknown>>(sql`
    select i.id, i.kind, i.name, i.unit, i.nozzle_type_id "nozzleTypeId", i.minimum, i.used_by "usedBy", i.price,
      i.priced_on::text "pricedOn", i.note, i.withdrawn, i.version, coalesce(s.on_hand, 0) "onHand",
      coalesce(s.on_order, 0) "onOrder", ${iso('s.counted_at')} "countedAt"
    from stock_items i left join stock_stands s on s.item_id = i.id order by i.withdrawn, i.kind, lower(i.name), i.id`)

interface Spares {
  count: number
  usedBefore: number
}
/** Nozzles on the shelf by type that are not probably past their limit, and hotends on the shelf. */
async function tagged(db: Connection): Promise<{ nozzles: Map<number, Spares>; hotends: number }> {
  const [nozzles, hotends] = await Promise.all([
    db.execute<Spares & { typeId: number } & Record<string, unknown>>(sql`
      select n.type_id "typeId", count(*)::int count,
        (count(*) filter (where f.wear_kg > 0 or n.was_used))::int "usedBefore"
      from nozzles n left join nozzle_stands s on s.nozzle_id = n.id left join forecasts f on f.nozzle_id = n.id
      where (s.kind is null or s.kind = 'remove') and s.hotend_id is null
        and coalesce(f.past_chance, 0) <= ${PROBABLY_PAST}
      group by n.type_id`),
    db.execute<{ n: number }>(sql`
      select count(*)::int n from hotends h left join hotend_stands s on s.hotend_id = h.id
      where s.kind is null or s.kind not in ('fit', 'scrap')`),
  ])
  return { nozzles: new Map(nozzles.map(({ typeId, ...s }) => [typeId, s])), hotends: hotends[0]!.n }
}

type Tagged = Awaited<ReturnType<typeof tagged>>
function onHandOf(i: Pick<ItemRow, 'kind' | 'nozzleTypeId' | 'onHand'>, { nozzles, hotends }: Tagged): number {
  if (i.nozzleTypeId !== null) return nozzles.get(i.nozzleTypeId)?.count ?? 0
  return i.kind === 'hotend' ? hotends : i.onHand
}

/** What is short in the shop. */
export async function stockDue(db: Connection): Promise<Due[]> {
  const [items, tags] = await Promise.all([itemRows(db), tagged(db)])
  return items.flatMap(i => {
    const due = i.withdrawn ? null : dueOfStock({ ...i, onHand: onHandOf(i, tags) })
    return due === null ? [] : [due]
  })
}

/** The heads that take nozzles of each type: what is left, what goes through a day, how long a new one lives. */
async function headsByType(db: Connection): Promise<Map<number, HeadWear[]>> {
  const [rows, lives] = await Promise.all([
    db.execute<{ typeId: number; median: number; low80: number; high80: number; perDay: number }>(sql`
      select n.type_id "typeId", f.left_kg median, f.left_low_kg low80, f.left_high_kg high80,
        coalesce(l.kg, 0)::float8 / ${daysOf(sql`least(h.created_at, l.first)`, LATELY_DAYS)} "perDay"
      from nozzle_stands s join nozzles n on n.id = s.nozzle_id join forecasts f on f.nozzle_id = n.id
      join heads h on h.id = s.head_id join printers p on p.id = h.printer_id
      cross join lateral (select sum(t.wear_kg) kg, min(t.ended_at) "first" from standing_run_tools t
        where t.head_id = s.head_id and t.ended_at > now() - ${sql.raw(`interval '${LATELY_DAYS} days'`)}) l
      where s.kind = 'fit' and not p.out_of_use`),
    typeLives(db),
  ])
  const lifeOf = (typeId: number): Life | null => {
    const of = lives.find(l => l.typeId === typeId && l.filler === null)
    return of?.fit ?? of?.model ?? null
  }
  const kg = (v: number) => (v >= ENDLESS_KG ? Infinity : v)
  const out = new Map<number, HeadWear[]>()
  for (const r of rows) {
    const leftKg = { median: kg(r.median), low80: kg(r.low80), high80: kg(r.high80) }
    const head = { leftKg, kgPerDay: r.perDay, life: lifeOf(r.typeId) }
    out.set(r.typeId, [...(out.get(r.typeId) ?? []), head])
  }
  return out
}

const usesOf = (db: Connection) =>
  db.execute<{ itemId: number; uses: number; quantity: number; overDays: number }>(sql`
    select i.id "itemId", count(m.id)::int uses, coalesce(sum(m.quantity), 0)::float8 quantity,
      greatest(0, least(${USE_DAYS}, coalesce(extract(epoch from now() - (select min(b.occurred_at)
        from standing_stock_moves b where b.item_id = i.id)) / 86400, 0)))::float8 "overDays"
    from stock_items i left join standing_stock_moves m on m.item_id = i.id and m.kind = 'used'
      and m.occurred_at > now() - ${sql.raw(`interval '${USE_DAYS} days'`)}
    group by i.id`)

type Wanted = StockLine['wanted']
const byForecasts = (heads: readonly HeadWear[], days: number): Wanted => {
  const chances = needChances(heads, days)
  return {
    enough: enoughFor(chances, ENOUGH_SURE),
    by: 'forecasts',
    oneChance: Math.min(1, Math.max(0, 1 - chances[0]!)),
    heads: heads.length,
    uses: 0,
    overDays: 0,
  }
}
function byUse(used: { uses: number; quantity: number; overDays: number } | undefined, days: number): Wanted {
  if (used === undefined) return null
  const enough = enoughByUse(used, days, ENOUGH_SURE)
  if (enough === null) return null
  return { enough, by: 'use', oneChance: null, heads: 0, uses: used.uses, overDays: used.overDays }
}

/** The whole shelf, and what to order so that it is enough for so many days. */
export async function stockPage(db: Connection, days: number): Promise<Stock> {
  const [items, tags, heads, uses, types, settings, moves] = await Promise.all([
    itemRows(db),
    tagged(db),
    headsByType(db),
    usesOf(db),
    db.execute<{ id: number; name: string; material: string }>(
      sql`select id, name, material from nozzle_types order by lower(name), id`,
    ),
    shopSettings(db),
    listMoves(db),
  ])
  const priceOf = (i: Item): StockLine['price'] => {
    if (i.price !== null) return { each: i.price, on: i.pricedOn }
    const material = types.find(t => t.id === i.nozzleTypeId)?.material
    const shops = material === undefined ? undefined : settings.prices[`nozzle ${material}`]
    return shops ? { each: shops.price, on: null } : null
  }
  const lineOf = (i: Item): StockLine => {
    const onHand = onHandOf(i, tags)
    const type = i.nozzleTypeId
    const used = uses.find(u => u.itemId === i.id)
    const wanted = type === null ? byUse(used, days) : byForecasts(heads.get(type) ?? [], days)
    const { price: _price, pricedOn: _on, ...rest } = i
    return {
      ...rest,
      onHand,
      usedBefore: type === null ? null : (tags.nozzles.get(type)?.usedBefore ?? 0),
      wanted: i.kind === 'hotend' ? null : wanted,
      toOrder: i.withdrawn ? 0 : toOrder({ ...i, onHand, need: i.kind === 'hotend' ? 0 : (wanted?.enough ?? null) }),
      due: i.id === null || i.withdrawn ? null : dueOfStock({ ...i, id: i.id, onHand }),
      price: priceOf(i),
    }
  }
  // nozzles of a type that is in use, for which nobody set a minimum
  const kept = new Set(items.filter(i => !i.withdrawn).map(i => i.nozzleTypeId))
  const unkept = types
    .filter(t => !kept.has(t.id) && (heads.has(t.id) || tags.nozzles.has(t.id)))
    .map(t => lineOf(unkeptItem(t)))
  const lines = [...unkept, ...items.map(lineOf)].sort(
    (a, b) =>
      Number(a.withdrawn) - Number(b.withdrawn) ||
      Number(b.kind === 'nozzle') - Number(a.kind === 'nozzle') ||
      a.kind.localeCompare(b.kind) ||
      a.name.localeCompare(b.name, 'en', { numeric: true }),
  )
  return { lines, moves, days, sure: ENOUGH_SURE, currency: settings.currency }
}

async function listMoves(db: Connection): Promise<StockMoveLine[]> {
  return await db.execute<StockMoveLine & Record<string, unknown>>(sql`
    select m.id::int, m.item_id "itemId", i.name, i.unit, m.kind, m.quantity,
      case when m.upkeep_id is not null then (select 'upkeep of ' || p.name || ', ' || k.name from upkeep_entries e
          join upkeep_tasks k on k.id = e.task_id join printers p on p.id = e.printer_id where e.id = m.upkeep_id)
        when m.procedure_id is not null then (select c.title || ', ' || p.name from procedures c
          join printers p on p.id = c.printer_id where c.id = m.procedure_id) end "from",
      m.note, ${iso('m.occurred_at')} at, u.name "by",
      (select s.reason from strikes s where s.target = 'stock move' and s.target_id = m.id) struck
    from stock_moves m join stock_items i on i.id = m.item_id join people u on u.id = m.person_id
    order by m.occurred_at desc, m.id desc limit ${MOST_MOVES}`)
}
