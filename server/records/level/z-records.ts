/** Z numbers: set after a change, set by feeler, read after a power-off; and how they wandered. */
import { sql } from 'drizzle-orm'
import type { z } from 'zod'
import type { ZWay } from '#core/changeover'
import { lostZ } from '#core/level'
import type { LevelPage } from '#shared/answers/level'
import type { zRecordSchema } from '#shared/entries/level'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { zRecords } from '../../db/schema'
import { notInFuture, refuseField } from '../entry/refusal'
import { headAt, LAST_ON_HEAD, PLACE_OF_HEAD } from '../printers/fittings'

/** Numbers that the page of a bed shows of each head. */
const MOST_NUMBERS = 120

/** The way a printer's Z number counts, by what was said last of any of its heads. */
export const wayOfPrinter = (printerId: unknown) => sql`(select z.way from standing_z_records z
  join heads zh on zh.id = z.head_id where zh.printer_id = ${printerId} order by z.occurred_at desc, z.id desc limit 1)`
/** The number that was set last on a head: what is read after a power-off sets nothing. */
export const setOnHead = (headId: unknown) => sql`(select z.z_mm from standing_z_records z
  where z.head_id = ${headId} and z.why <> 'power-off' order by z.occurred_at desc, z.id desc limit 1)`
/** The number that was read after a power-off, with nothing set since; null: nothing was. */
const readOnHead = (headId: unknown) => sql`(select case when z.why = 'power-off' then z.z_mm end
  from standing_z_records z where z.head_id = ${headId} order by z.occurred_at desc, z.id desc limit 1)`

/** What is wrong with the number of a head since the power was off; null while nothing is. */
export async function zLostOn(db: Connection, headId: number): Promise<string | null> {
  const [row] = await db.execute<Stand & Record<string, unknown>>(
    sql`select ${setOnHead(headId)} "setMm", ${readOnHead(headId)} "readMm"`,
  )
  return lostOf(row!)
}
interface Stand {
  setMm: number | null
  readMm: number | null
}
const lostOf = ({ setMm, readMm }: Stand) => (setMm === null || readMm === null ? null : lostZ({ setMm, readMm }))

/** Every head of a printer in use whose number was lost. */
export async function lostZs(db: Connection): Promise<{ printer: string; reason: string }[]> {
  const rows = await db.execute<Stand & { printer: string; place: string } & Record<string, unknown>>(sql`
    select p.name printer, ${PLACE_OF_HEAD} place, ${setOnHead(sql`h.id`)} "setMm", ${readOnHead(sql`h.id`)} "readMm"
    from heads h join printers p on p.id = h.printer_id and not p.out_of_use
    where exists (select from z_records z where z.head_id = h.id and z.why = 'power-off')`)
  return rows.flatMap(r => {
    const reason = lostOf(r)
    return reason === null ? [] : [{ printer: r.printer, reason: `${r.place}: ${reason}` }]
  })
}

type HeadRow = Omit<LevelPage['heads'][number], 'lost'> & Record<string, unknown> & Stand

/** The heads of a printer with their numbers, the latest first. */
export async function zHeads(db: Connection, printerId: number): Promise<LevelPage['heads']> {
  const rows = await db.execute<HeadRow>(sql`
    select h.id, h.name, ${PLACE_OF_HEAD} place, n.tag nozzle, ${wayOfPrinter(printerId)} way,
      ${setOnHead(sql`h.id`)} "setMm", ${readOnHead(sql`h.id`)} "readMm",
      coalesce((select json_agg(x order by x.at desc, x.id desc) from (
        select z.id::int, ${iso('z.occurred_at')} at, w.name "by", z.why, z.z_mm "zMm", z.probe_mm "probeMm",
          zn.tag nozzle, zn.id "nozzleId", z.note,
          (select s.reason from strikes s where s.target = 'Z record' and s.target_id = z.id) struck
        from z_records z join people w on w.id = z.person_id join nozzles zn on zn.id = z.nozzle_id
        where z.head_id = h.id order by z.occurred_at desc, z.id desc limit ${MOST_NUMBERS}) x), '[]') records
    from heads h join printers p on p.id = h.printer_id
    left join lateral ${LAST_ON_HEAD} e on e.kind = 'fit' left join nozzles n on n.id = e.nozzle_id
    where h.printer_id = ${printerId} order by h.position, h.id`)
  return rows.map(({ setMm, readMm, ...h }) => ({ ...h, lost: lostOf({ setMm, readMm }) })) as LevelPage['heads']
}

export async function saveZRecord(
  tx: Connection,
  { confirmed: _, way, ...r }: z.output<typeof zRecordSchema>,
  personId: number,
): Promise<{ id: number; lost: string | null }> {
  const occurredAt = notInFuture('occurredAt', r.occurredAt)
  const [head] = await tx.execute<{ way: ZWay | null }>(sql`
    select ${wayOfPrinter(sql`h.printer_id`)} way from heads h where h.id = ${r.headId}`)
  if (!head) refuseField('headId', 'This head is not known')
  const fitted = await headAt(tx, r.headId, occurredAt)
  if (!fitted) refuseField('headId', 'No nozzle was on it then: Z is the distance of a nozzle')
  const counts = way ?? head.way
  if (counts === null) refuseField('way', 'Say which way its number counts')
  const [row] = await tx
    .insert(zRecords)
    .values({ ...r, nozzleId: fitted.nozzleId, way: counts, occurredAt, personId })
    .returning({ id: zRecords.id })
  return { ...row!, lost: await zLostOn(tx, r.headId) }
}
