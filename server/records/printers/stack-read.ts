/** Printers as stacks of parts, by the log of changes: what sits where, what is on the shelf, what was done. */
import type { ChangeLine, StackPrinter, StoredPart } from '#shared/answers/printers'
import { sql } from 'drizzle-orm'
import {
  heatAt,
  PLACE_WORDS,
  recordSource,
  shopDryer,
  type AirPlace,
  type AirSource,
  type FittedNozzle,
  type Opening,
  type Part,
  type ShopDryer,
} from '#core/limits'
import { PROBABLY_PAST } from '#core/schedule'
import type { NozzleMaterial } from '#core/wear'
import type { Connection } from '../../db/client'
import { idIn } from '../../db/ids'
import { iso, shopDay } from '../../db/iso'
import { surveyedAir } from '../chambers/surveys'
import { knownSensors, type KnownSensors } from '../sensors/corrections'
import { LAST_ON_HEAD } from './fittings'

/** Part `a` at its place `w`, entered by `u`, as columns: building JSON of thousands takes longer than reading them. */
export const PART_COLUMNS = sql`a.id, a.kind, a.role, a.name, w.head_id "headId", a.place, a.limit_c "limitC",
  a.short_c "shortC", a.basis, a.note, a.details, a.version, u.name "enteredBy", ${iso('a.entered_at')} "enteredAt"`
export type PartRow = StoredPart & Record<string, unknown>
/** Nozzle `n` of type `y`, on head `h`. */
export const NOZZLE_JSON = sql`json_build_object('id', n.id, 'tag', n.tag, 'material', y.material, 'boreMm',
  y.nominal_bore_mm, 'insert', y.insert_mm is not null, 'lengthMm', y.length_mm, 'headId', h.id, 'price', 0)`

/** Where the probe of warm-up `u` was: as somebody told last, else as it was recorded. */
export const WARM_UP_PLACE = sql`
  coalesce((select t.place from warm_up_places t where t.warm_up_id = u.id order by t.id desc limit 1), u.at_place)`

interface WarmUpRow {
  source: 'live readings' | 'probe file'
  at: number
  place: AirPlace
  opening: Opening
  finalC: number
  reachedShare: number
  bedC: number
  roomC: number
  chamberSetC: number | null
  on: string
}
/**
 * The latest warm-up of each place, lid and way of heating, as long as the enclosure is still the one it was recorded
 * in.
 */
const recordsOf = (printerIds?: readonly number[]) => sql`
  select x.printer_id, json_agg(json_build_object('place', x.place, 'opening', x.opening, 'finalC', x.fit->'finalC',
    'reachedShare', x.fit->'reachedShare', 'bedC', x.bed_c, 'roomC', x.room_c, 'chamberSetC', x.chamber_set_c,
    'source', x.source, 'at', extract(epoch from x.occurred_at) * 1000,
    'on', ${shopDay('x.occurred_at')}) order by x.id) records
  from (
    select distinct on (w.printer_id, w.place, w.opening, w.chamber_set_c is null) w.* from (
      select u.id, u.printer_id, u.source, u.opening, u.fit, u.bed_c, u.room_c, u.chamber_set_c, u.occurred_at,
        ${WARM_UP_PLACE} place
      from warm_ups u where ${idIn('u.printer_id', printerIds)}
        and not exists (select from strikes s where s.target = 'warm-up' and s.target_id = u.id)
    ) w
    where w.place is not null and not exists (select from part_events e
      join standing_stack_changes c on c.id = e.change_id and c.kind = 'changed' and c.printer_id = w.printer_id
      join parts a on a.id = e.part_id and a.role = 'enclosure'
      where e.kind = 'fit' and c.occurred_at > w.occurred_at)
    order by w.printer_id, w.place, w.opening, w.chamber_set_c is null, w.occurred_at desc, w.id desc
  ) x group by x.printer_id`

/**
 * Warm-ups as sources, both sides in true temperatures: what was set is corrected by the check of its sensor, and so is
 * the air where the printer's own sensor read it. A record from before that sensor was fitted stays as it was shown.
 */
function airOf(records: readonly WarmUpRow[], known: KnownSensors | undefined): AirSource[] {
  return records.flatMap(({ at, source: readBy, ...r }) => {
    const by = (zone: 'bed' | 'chamber') => (known && at >= known.since[zone] ? known.sensors[zone] : null)
    const made = (zone: 'bed' | 'chamber', c: number) => heatAt(by(zone), c).trueC
    const source = recordSource({
      ...r,
      bedC: made('bed', r.bedC),
      chamberSetC: r.chamberSetC === null ? null : made('chamber', r.chamberSetC),
      finalC: readBy === 'live readings' ? made('chamber', r.finalC) : r.finalC,
      from: `its warm-up of ${r.on} ${PLACE_WORDS[r.place]}`,
    })
    return source ? [source] : []
  })
}

/** What the shop dries in, as parts beside every printer: those that are described under Prepare. */
async function shopDryers(db: Connection): Promise<Part[]> {
  const rows = await db.execute<ShopDryer & { roomC: number } & Record<string, unknown>>(sql`
    select d.id, d.name, d.kind, d.ceiling_c "ceilingC", d.basis, d.note, s.room_c "roomC"
    from dryers d, settings s where not d.withdrawn order by d.id`)
  return rows.map(({ roomC, ...d }) => shopDryer(d, roomC))
}

const printerRows = (db: Connection, ids?: readonly number[]) =>
  db.execute<Omit<StackPrinter, 'air' | 'dryers' | 'heads' | 'parts'> & { records: WarmUpRow[] }>(sql`
    select p.id, p.name, p.kind, p.note, coalesce(w.records, '[]') records, p.out_of_use "outOfUse", p.version
    from printers p left join (${recordsOf(ids)}) w on w.printer_id = p.id
    where ${idIn('p.id', ids)} order by p.id`)

type Head = StackPrinter['heads'][number]
const headRows = (db: Connection, printerIds?: readonly number[]) =>
  db.execute<Head & { printerId: number }>(sql`
    select h.printer_id "printerId", h.id, h.name, case when n.id is not null then ${NOZZLE_JSON} end nozzle
    from heads h left join lateral ${LAST_ON_HEAD} e on e.kind = 'fit'
    left join nozzles n on n.id = e.nozzle_id left join nozzle_types y on y.id = n.type_id
    where ${idIn('h.printer_id', printerIds)} order by h.position, h.id`)

const fittedRows = (db: Connection, printerIds?: readonly number[]) =>
  db.execute<PartRow & { printerId: number }>(sql`
    select w.printer_id "printerId", ${PART_COLUMNS} from part_places w
    join parts a on a.id = w.part_id join people u on u.id = a.entered_by
    where w.kind = 'fit' and a.role <> 'dryer' and ${idIn('w.printer_id', printerIds)} order by a.id`)

/** Rows by their printer, without saying so in each. */
function byPrinter<T extends { printerId: number }>(rows: readonly T[]): Map<number, Omit<T, 'printerId'>[]> {
  const of = new Map<number, Omit<T, 'printerId'>[]>()
  for (const { printerId, ...row } of rows) {
    const list = of.get(printerId)
    if (list) list.push(row)
    else of.set(printerId, [row])
  }
  return of
}

/** How rows of a table stand: another for every change of one that is committed, and for another database. */
const standOf = (table: 'parts' | 'part_stands' | 'people') => sql`(select count(*) || ' ' ||
  coalesce(sum(hashtextextended(ctid::text || ' ' || xmin::text, 0)), 0) from ${sql.identifier(table)})`
type Fitted = ReturnType<typeof byPrinter<PartRow & { printerId: number }>>
/** All fitted parts as they were read last: thousands of rows of which hardly one changes from day to day. */
let kept: { stand: string; parts: Fitted } | null = null

/** Parts by their printer; those of all printers are read again only where one was changed. */
async function fittedParts(db: Connection, printerIds?: readonly number[]): Promise<Fitted> {
  if (printerIds) return byPrinter(await fittedRows(db, printerIds))
  const [now] = await db.execute<{ stand: string }>(sql`
    select (select oid from pg_database where datname = current_database()) || ' ' || ${standOf('parts')} || ' ' ||
      ${standOf('part_stands')} || ' ' || ${standOf('people')} stand`)
  if (kept?.stand !== now!.stand) kept = { stand: now!.stand, parts: byPrinter(await fittedRows(db)) }
  return kept.parts
}

/** All printers as stacks, or those asked for. */
export async function listStacks(db: Connection, ids?: readonly number[]): Promise<StackPrinter[]> {
  const [rows, heads, parts, dryers, checks] = await Promise.all([
    printerRows(db, ids),
    headRows(db, ids).then(byPrinter),
    fittedParts(db, ids),
    shopDryers(db),
    knownSensors(db),
  ])
  const surveyed = await surveyedAir(db, checks)
  return rows.map(({ records, ...p }) => {
    const known = checks.get(p.id)
    return {
      ...p,
      heads: (heads.get(p.id) ?? []) as Head[],
      parts: (parts.get(p.id) ?? []) as StoredPart[],
      air: [...(surveyed.get(p.id) ?? []), ...airOf(records, known)],
      dryers,
      ...(known && { sensors: known.sensors }),
    }
  })
}

/** Parts that lie on the shelf by themselves, fit for any printer. */
export async function listShelf(db: Connection): Promise<StoredPart[]> {
  const rows = await db.execute<PartRow>(sql`
    select ${PART_COLUMNS} from parts a join people u on u.id = a.entered_by
    left join part_places w on w.part_id = a.id
    where ((w.kind = 'shelve' and w.hotend_id is null) or (w.kind is null and a.to_shelf)) and a.role <> 'dryer'
    order by a.id`)
  return rows.map(r => ({ ...r, headId: null }))
}

/** Nozzles that are neither fitted nor retired, nor in a hotend on the shelf. */
export async function listSpareNozzles(db: Connection): Promise<FittedNozzle[]> {
  const rows = await db.execute<{
    id: number
    tag: string
    material: NozzleMaterial
    bore: number
    insert: boolean
    length: number
  }>(sql`
    select n.id, n.tag, y.material, y.nominal_bore_mm bore, y.insert_mm is not null "insert",
    y.length_mm length from nozzles n join nozzle_types y on y.id = n.type_id
    join nozzle_stands e on e.nozzle_id = n.id
    left join forecasts f on f.nozzle_id = n.id
    where e.kind is distinct from 'fit' and e.kind is distinct from 'retire'
    and e.hotend_id is null and coalesce(f.past_chance, 0) <= ${PROBABLY_PAST} order by n.id`)
  return rows.map(r => ({
    id: r.id,
    tag: r.tag,
    material: r.material,
    boreMm: r.bore,
    insert: r.insert,
    lengthMm: r.length,
    headId: null,
    price: 0,
  }))
}

export async function listChanges(db: Connection): Promise<ChangeLine[]> {
  return await db.execute<ChangeLine & Record<string, unknown>>(sql`
    select c.id::int id, c.printer_id "printerId", c.kind, c.text, ${iso('c.occurred_at')} at, w.name person,
      (select json_build_object('reason', k.reason, 'person', kw.name) from strikes k
      join people kw on kw.id = k.person_id where k.target = 'stack change' and k.target_id = c.id) struck
    from stack_changes c join people w on w.id = c.person_id where c.printer_id is not null
    order by c.occurred_at desc, c.id desc limit 500`)
}
