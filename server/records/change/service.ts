/** Printers out of service until something is proved, and notes to the next shift until they are read. */
import { eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import type { NoteLine, TagLine } from '#shared/answers/change'
import type { serviceTagSchema, shiftNoteSchema } from '#shared/entries/change'
import type { endingSchema } from '#shared/entries/log'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { printers, serviceTags, shiftNotes } from '../../db/schema'
import { notInFuture, refuseField, refuseFields } from '../entry/refusal'

async function known(tx: Connection, printerId: number): Promise<void> {
  const [printer] = await tx.select().from(printers).where(eq(printers.id, printerId))
  if (!printer) refuseField('printerId', 'This printer is not known')
}

export async function saveServiceTag(
  tx: Connection,
  t: z.output<typeof serviceTagSchema>,
  personId: number,
): Promise<{ id: number }> {
  await known(tx, t.printerId)
  const occurredAt = notInFuture('occurredAt', t.occurredAt)
  const [row] = await tx
    .insert(serviceTags)
    .values({ ...t, occurredAt, personId })
    .returning({ id: serviceTags.id })
  return row!
}

export async function saveShiftNote(
  tx: Connection,
  n: z.output<typeof shiftNoteSchema>,
  personId: number,
): Promise<{ id: number }> {
  await known(tx, n.printerId)
  const occurredAt = notInFuture('occurredAt', n.occurredAt)
  const [row] = await tx
    .insert(shiftNotes)
    .values({ ...n, occurredAt, personId })
    .returning({ id: shiftNotes.id })
  return row!
}

/** A printer goes back when each thing that had to be proved says how it was. */
export async function refuseUnproved(tx: Connection, e: z.output<typeof endingSchema>): Promise<void> {
  const [tag] = await tx.select().from(serviceTags).where(eq(serviceTags.id, e.targetId))
  const faults = tag!.must.flatMap((what, i) => {
    const how = e.proved?.find(p => p.what === what)?.how ?? ''
    return how.trim().length >= 3 ? [] : [{ field: `proved.${i}.how`, message: 'Say how it was proved' }]
  })
  if (faults.length > 0) refuseFields(faults)
  if (tag!.must.length === 0 && e.note.trim().length < 3) refuseField('note', 'Say why it may run again')
}

/** A note is signed by somebody other than who wrote it: the writer knew it. */
export async function refuseOwnNote(tx: Connection, noteId: number, personId: number): Promise<void> {
  const [note] = await tx.select().from(shiftNotes).where(eq(shiftNotes.id, noteId))
  if (note!.personId === personId)
    refuseField('targetId', 'You wrote it: the next shift signs it. To take it back, strike it out')
}

/** Tags that hang, and the latest that came off. */
export async function listTags(db: Connection): Promise<TagLine[]> {
  return await db.execute<TagLine & Record<string, unknown>>(sql`
    select t.id::int, t.printer_id "printerId", p.name printer, t.why, t.must, t.procedure_id::int "procedureId",
      ${iso('t.occurred_at')} at, u.name "by",
      (select json_build_object('at', ${iso('n.occurred_at')}, 'by', w.name, 'proved', coalesce(n.proved, '[]'),
        'note', n.note)
        from endings n join people w on w.id = n.person_id where n.target = 'out of service' and n.target_id = t.id)
        back,
      (select s.reason from strikes s where s.target = 'out of service' and s.target_id = t.id) struck
    from service_tags t join printers p on p.id = t.printer_id join people u on u.id = t.person_id
    order by t.occurred_at desc, t.id desc limit 60`)
}

/** Notes that nobody has signed, and the latest that are. */
export async function listNotes(db: Connection): Promise<NoteLine[]> {
  return await db.execute<NoteLine & Record<string, unknown>>(sql`
    select s.id::int, s.printer_id "printerId", p.name printer, s.says, ${iso('s.occurred_at')} at, u.name "by",
      (select json_build_object('at', ${iso('n.occurred_at')}, 'by', w.name)
        from endings n join people w on w.id = n.person_id where n.target = 'shift note' and n.target_id = s.id) "read",
      (select k.reason from strikes k where k.target = 'shift note' and k.target_id = s.id) struck
    from shift_notes s join printers p on p.id = s.printer_id join people u on u.id = s.person_id
    order by s.occurred_at desc, s.id desc limit 60`)
}
