/** Cards of what worked: gathered from runs, with what a person wrote over them. */
import { sql } from 'drizzle-orm'
import type { z } from 'zod'
import { CARD_KEYS, cardValues, type FoundValues, type HandValues } from '#core/cards'
import type { Card } from '#shared/answers/cards'
import type { cardSchema } from '#shared/entries/cards'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { cards } from '../../db/schema'
import { refuseField } from '../entry/refusal'

/** Runs further back say little of how the shop prints now. */
const YEARS = 2
/** And more than these of a filament say no more of it: the latest count. */
const LATEST_RUNS = 2000

interface Row extends Record<string, unknown> {
  typeId: number
  printerId: number
  type: string
  printer: string
  good: number
  failed: number
  lastAt: string | null
  found: FoundValues
}
interface Hand extends Record<string, unknown> {
  id: number
  version: number
  typeId: number
  printerId: number
  type: string
  printer: string
  person: string
  adhesive: string
  outcome: string
  note: string
  bondAlongN: number | null
  bondAcrossN: number | null
  values: HandValues
}

/** Of what, and for a check on which type of nozzle and printer alone. */
interface Which {
  materialId: number
  typeId?: number
  printerId?: number
}
const these = ({ materialId, typeId, printerId }: Which, type: string, printer: string, material: string) =>
  sql.join(
    [
      sql`${sql.raw(material)} = ${materialId}`,
      ...(typeId === undefined ? [] : [sql`${sql.raw(type)} = ${typeId}`]),
      ...(printerId === undefined ? [] : [sql`${sql.raw(printer)} = ${printerId}`]),
    ],
    sql` and `,
  )

/** A column's lowest, middle and highest over runs that finished. */
const spread = (column: string) =>
  sql.raw(`case when count(${column}) filter (where finished) = 0 then null else json_build_object(
    'low', min(${column}) filter (where finished), 'high', max(${column}) filter (where finished),
    'middle', percentile_cont(0.5) within group (order by ${column}) filter (where finished)) end`)

/** The cards of a material, those with most good runs first. */
export async function listCards(db: Connection, which: Which): Promise<Card[]> {
  const [rows, hands] = await Promise.all([
    db.execute<Row>(sql`
      with used as (
        select r.id, r.printer_id, n.type_id, r.outcome = 'finished' finished, r.job_id, t.tool, t.set_c, r.bed_set_c,
          r.chamber_set_c, t.peak_flow_mm3_s peak, t.ended_at
        from (select * from standing_run_tools t where t.material_id = ${which.materialId}
          and t.ended_at > now() - ${YEARS} * interval '1 year' order by t.ended_at desc limit ${LATEST_RUNS}) t
        join runs r on r.id = t.run_id join nozzles n on n.id = t.nozzle_id
        where ${these(which, 'n.type_id', 'r.printer_id', 't.material_id')}
          and not exists (select from flow_bench_runs f where f.run_id = r.id)
      ), told as (
        select id job_id, (scan -> 'fan' ->> 'max')::float8 * 100 fan,
          (scan -> 'firstLayer' ->> 'meanMmS')::float8 first_mm_s,
          (scan -> 'firstLayer' ->> 'heightMm')::float8 first_mm
        from jobs where id in (select job_id from used)
      )
      select y.id "typeId", y.name type, p.id "printerId", p.name printer,
        count(distinct u.id) filter (where finished)::int good,
        count(distinct u.id) filter (where not finished)::int failed,
        ${iso('max(u.ended_at)')} "lastAt",
        json_build_object('nozzleC', ${spread('set_c')}, 'bedC', ${spread('bed_set_c')},
          'chamberC', ${spread('nullif(chamber_set_c, 0)')}, 'peakMm3S', ${spread('peak')},
          'fanPercent', ${spread('fan')}, 'firstLayerMmS', ${spread('first_mm_s')},
          'firstLayerMm', ${spread('first_mm')}) found
      from used u left join told using (job_id) join nozzle_types y on y.id = u.type_id
      join printers p on p.id = u.printer_id group by y.id, p.id`),
    db.execute<Hand>(sql`
      select c.id, c.version, c.type_id "typeId", y.name type, c.printer_id "printerId", p.name printer, w.name person,
        c.adhesive, c.outcome, c.note, c.bond_along_n "bondAlongN", c.bond_across_n "bondAcrossN",
        json_build_object('nozzleC', c.nozzle_c, 'bedC', c.bed_c, 'chamberC', c.chamber_c, 'printMmS', c.print_mm_s,
          'peakMm3S', c.peak_mm3_s, 'firstLayerMmS', c.first_layer_mm_s, 'firstLayerMm', c.first_layer_mm,
          'fanPercent', c.fan_percent, 'flowPercent', c.flow_percent, 'holdMin', c.hold_min,
          'coolCPerMin', c.cool_c_per_min) "values"
      from cards c join nozzle_types y on y.id = c.type_id join printers p on p.id = c.printer_id
      join people w on w.id = coalesce((select e.person_id from edits e where e.kind = 'cards' and e.record_id = c.id
        order by e.version desc limit 1), c.created_by)
      where ${these(which, 'c.type_id', 'c.printer_id', 'c.material_id')}`),
  ])
  const keys = new Map<string, { row: Row | null; hand: Hand | null }>()
  for (const row of rows) keys.set(`${row.typeId} ${row.printerId}`, { row, hand: null })
  for (const hand of hands) {
    const key = `${hand.typeId} ${hand.printerId}`
    keys.set(key, { row: keys.get(key)?.row ?? null, hand })
  }
  return [...keys.values()]
    .map(({ row, hand }) => toCard(which.materialId, row, hand))
    .sort((a, b) => b.good - a.good || b.failed - a.failed || a.printer.localeCompare(b.printer))
}

function toCard(materialId: number, row: Row | null, hand: Hand | null): Card {
  const { typeId, type, printerId, printer } = (row ?? hand)!
  return {
    materialId,
    typeId,
    type,
    printerId,
    printer,
    good: row?.good ?? 0,
    failed: row?.failed ?? 0,
    lastAt: row?.lastAt ?? null,
    values: cardValues(within(row?.found ?? {}), hand?.values ?? {}),
    hand: hand && {
      id: hand.id,
      version: hand.version,
      values: hand.values as Record<string, number | null>,
      bondAlongN: hand.bondAlongN,
      bondAcrossN: hand.bondAcrossN,
      adhesive: hand.adhesive,
      outcome: hand.outcome,
      note: hand.note,
      person: hand.person,
    },
  }
}
/** Of what the runs told, the numbers that a card has. */
const within = (found: FoundValues): FoundValues =>
  Object.fromEntries(CARD_KEYS.flatMap(k => (found[k] ? [[k, found[k]]] : [])))

/** What worked with a filament through a nozzle of this one's type on this printer. */
export async function workedWith(
  db: Connection,
  of: { materialId: number; printerId: number },
  nozzleId: number,
): Promise<Pick<Card, 'good' | 'failed' | 'values'>> {
  const [n] = await db.execute<{ type_id: number }>(sql`select type_id from nozzles where id = ${nozzleId}`)
  const { materialId, printerId } = of
  const [found] = await listCards(db, { materialId, printerId, typeId: n!.type_id })
  return found ?? { good: 0, failed: 0, values: [] }
}

/** Writes a card where nobody did yet. */
export async function addCard(
  tx: Connection,
  c: z.output<typeof cardSchema>,
  personId: number,
): Promise<{ id: number }> {
  const { materialId, typeId, printerId, card } = c
  const known = await tx.execute<{ m: boolean; t: boolean; p: boolean }>(sql`
    select exists (select from materials where id = ${materialId}) m,
      exists (select from nozzle_types where id = ${typeId}) t,
      exists (select from printers where id = ${printerId}) p`)
  if (!known[0]!.m) refuseField('materialId', 'This material is not known')
  if (!known[0]!.t) refuseField('typeId', 'This type of nozzle is not known')
  if (!known[0]!.p) refuseField('printerId', 'This printer is not known')
  const [row] = await tx
    .insert(cards)
    .values({ materialId, typeId, printerId, ...card, createdBy: personId })
    .onConflictDoNothing()
    .returning({ id: cards.id })
  return row ?? refuseField('printerId', 'There is a card for these already: edit it')
}
