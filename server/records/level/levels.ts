/** What was measured of beds, and what it says. */
import { sql } from 'drizzle-orm'
import type { z } from 'zod'
import { levelFound, levelVerdict, type Bed, type LevelMeasured, type LevelVerdict } from '#core/level'
import { InputError } from '#core/numeric'
import type { LevelLine, LevelPage } from '#shared/answers/level'
import type { levelSchema } from '#shared/entries/level'
import { seeLevel } from '#shared/level'
import type { Connection } from '../../db/client'
import { iso, shopDay } from '../../db/iso'
import { levels } from '../../db/schema'
import { notFound, notInFuture, refuseField } from '../entry/refusal'
import { nameOfPrinter } from '../printers/printers'
import { bedOf } from './beds'
import { lostZs, zHeads } from './z-records'

/** Measures that the page of a bed lists. */
const MOST_LEVELS = 40

type Row = Omit<LevelLine, 'how' | 'rangeMm' | 'warpMm' | 'mark' | 'says'> &
  Record<string, unknown> & { measured: LevelMeasured; soakedMin: number | null; jobC: number | null }

export async function levelPage(db: Connection, printerId: number): Promise<LevelPage> {
  const printer = await nameOfPrinter(db, printerId)
  if (printer === null) notFound('This printer')
  const [bed, rows, heads, [job]] = await Promise.all([
    bedOf(db, printerId),
    db.execute<Row>(sql`
      select l.id::int, ${iso('l.occurred_at')} at, w.name "by", l.measured, l.bed_c "bedC", l.soaked_min "soakedMin",
        l.note, (select s.reason from strikes s where s.target = 'level' and s.target_id = l.id) struck,
        ${JOB_BED} "jobC"
      from levels l join people w on w.id = l.person_id where l.printer_id = ${printerId}
      order by l.occurred_at desc, l.id desc limit ${MOST_LEVELS}`),
    zHeads(db, printerId),
    db.execute<{ jobC: number | null }>(sql`select ${JOB_BED} "jobC" from (select ${printerId}::int printer_id,
      now() occurred_at) l`),
  ])
  const jobC = job!.jobC
  const lines: LevelLine[] = rows.flatMap(r => {
    const { measured, soakedMin: _s, jobC: then, ...line } = r
    // a bed that was described away from what was measured leaves the others readable
    const seen = bed && seeLevel(measured, bed, { bedC: r.bedC, jobC: then })
    if (!seen) return []
    const { found, verdict } = seen
    const { rangeMm, warpMm } = found
    return [{ ...line, how: measured.how, rangeMm, warpMm, mark: verdict.mark, says: verdict.says }]
  })
  const counts = rows.find(r => r.struck === null && lines.some(l => l.id === r.id))
  const latest = counts
    ? { id: counts.id, measured: counts.measured, bedC: counts.bedC, soakedMin: counts.soakedMin }
    : null
  return { printerId, printer, bed, jobC, levels: lines, latest, heads } as LevelPage
}

/** What the last job before level `l` asked of the bed, °C. */
const JOB_BED = sql`(select r.bed_set_c from standing_runs r where r.printer_id = l.printer_id
  and r.ended_at <= l.occurred_at + interval '1 day' and r.bed_set_c is not null order by r.ended_at desc, r.id desc
  limit 1)`

export async function saveLevel(
  tx: Connection,
  { confirmed: _, ...l }: z.output<typeof levelSchema>,
  personId: number,
): Promise<{ id: number } & LevelVerdict> {
  const occurredAt = notInFuture('occurredAt', l.occurredAt)
  if ((await nameOfPrinter(tx, l.printerId)) === null) refuseField('printerId', 'This printer is not known')
  const bed = await bedOf(tx, l.printerId)
  if (!bed) refuseField('printerId', 'Describe its bed first: its size and its screws')
  const [job] = await tx.execute<{ jobC: number | null }>(sql`select ${JOB_BED} "jobC" from (select
    ${l.printerId}::int printer_id, ${occurredAt.toISOString()}::timestamptz occurred_at) l`)
  const said = sayOrRefuse(l.measured, bed, l.bedC, job!.jobC)
  const [row] = await tx
    .insert(levels)
    .values({ ...l, occurredAt, personId })
    .returning({ id: levels.id })
  return { ...row!, ...said }
}

/** Points on one line, and whatever else only the computation sees. */
function sayOrRefuse(m: LevelMeasured, bed: Bed, bedC: number, jobC: number | null): LevelVerdict {
  try {
    return levelVerdict(m, levelFound(m, bed), bed, { bedC, jobC })
  } catch (e) {
    if (e instanceof InputError) refuseField('measured', `Enter ${e.allowed}`)
    throw e
  }
}

export interface LevelStands extends LevelVerdict {
  /** "3 Nov 2026". */
  on: string
}
/** What the last measure of a printer's bed says; null where there is none. */
export async function levelStands(db: Connection, printerId: number, jobC: number | null): Promise<LevelStands | null> {
  const bed = await bedOf(db, printerId)
  if (!bed) return null
  const [row] = await db.execute<{ measured: LevelMeasured; bedC: number; on: string }>(sql`
    select measured, bed_c "bedC", ${shopDay('occurred_at')} "on" from standing_levels
    where printer_id = ${printerId} order by occurred_at desc, id desc limit 1`)
  const seen = row && seeLevel(row.measured, bed, { bedC: row.bedC, jobC })
  return seen ? { ...seen.verdict, on: row.on } : null
}

export interface BedDue {
  printer: string
  /** Of a Z that was lost, not of the bed itself. */
  z: boolean
  reason: string
  action: string
}
type BedRows = Record<string, unknown> & {
  printer: string
  bed: Bed
  measured: LevelMeasured
  bedC: number
  jobC: number | null
}
/** What the last measure of each bed asks, and every Z that was lost over a power-off. */
export async function bedsDue(db: Connection): Promise<BedDue[]> {
  const [rows, lost] = await Promise.all([
    db.execute<BedRows>(sql`
      select p.name printer, json_build_object('widthMm', b.width_mm, 'depthMm', b.depth_mm, 'screws', b.screws,
        'pitchMm', b.pitch_mm, 'clockwise', b.clockwise) bed, l.measured, l.bed_c "bedC", ${JOB_BED} "jobC"
      from printers p join beds b on b.printer_id = p.id
      join lateral (select * from standing_levels s where s.printer_id = p.id
        order by s.occurred_at desc, s.id desc limit 1) l on true
      where not p.out_of_use`),
    lostZs(db),
  ])
  const beds = rows.flatMap(({ printer, bed, measured, ...at }) => {
    const seen = seeLevel(measured, bed, at)
    if (seen === null || seen.verdict.mark === 'fine') return []
    return [{ printer, z: false, reason: seen.verdict.says, action: seen.verdict.action }]
  })
  return [...lost.map(l => ({ ...l, z: true, action: 'Enter it again, and set Z by feeler' })), ...beds]
}
