/** A long table on its way in: its lines in pieces, and how far it has come. Forgotten when saved, or in a day. */
import { sql } from 'drizzle-orm'
import type { z } from 'zod'
import type { IntakeLineIn, intakeSchema, pieceSchema } from '#shared/entries/intake'
import type { Connection } from '../../db/client'
import { refuseField } from '../entry/refusal'

/** Keeps a piece; one that comes again takes the place of the one before. */
export async function keepPiece(db: Connection, { stage, nr, lines }: z.output<typeof pieceSchema>) {
  await db.execute(sql`delete from intake_stages where recorded_at < now() - interval '1 day'`)
  await db.execute(sql`insert into intake_stages (stage) values (${stage}) on conflict (stage) do nothing`)
  await db.execute(sql`insert into intake_pieces (stage, nr, lines)
    values (${stage}, ${nr}, ${JSON.stringify(lines)}::jsonb)
    on conflict (stage, nr) do update set lines = excluded.lines`)
  return { kept: lines.length }
}

export async function forgetStage(db: Connection, stage: string): Promise<void> {
  await db.execute(sql`delete from intake_stages where stage = ${stage}`)
}

/** The lines of a table, those that came along or those that were sent ahead; all of them or an error. */
export async function linesOf(
  db: Connection,
  { staged, lines }: z.output<typeof intakeSchema>,
): Promise<IntakeLineIn[]> {
  if (staged === null) return lines
  const pieces = await db.execute<{ nr: number; lines: IntakeLineIn[] }>(sql`
    select nr, lines from intake_pieces where stage = ${staged.stage} and nr < ${staged.pieces} order by nr`)
  if (pieces.length !== staged.pieces)
    refuseField('staged', 'A part of the table has not come through: look at it once more')
  return pieces.flatMap(p => p.lines)
}

/** How many lines are done; null where no table is under way by that name. */
export async function progressOf(db: Connection, stage: string | null): Promise<{ done: number | null }> {
  if (stage === null) return { done: null }
  const [row] = await db.execute<{ done: number }>(sql`select done from intake_stages where stage = ${stage}`)
  return { done: row?.done ?? null }
}

/** Tells how many lines are done. A table that was given up meanwhile is not gone on with. */
export type Tell = (done: number) => Promise<void>
/** `db` is not the transaction that saves: nobody would see it. */
export function telling(db: Connection, staged: { stage: string } | null): Tell {
  return async done => {
    if (staged === null) return
    const [row] = await db.execute(sql`
      update intake_stages set done = ${done} where stage = ${staged.stage} returning stage`)
    if (!row) refuseField('staged', 'It was given up; nothing of it is stored')
  }
}
/** So many lines are done between two tellings; others get their turn then. */
export const TOLD_EVERY = 250
