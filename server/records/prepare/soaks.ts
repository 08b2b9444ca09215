/** Soaks: what is started, which run, and what the printer reported meanwhile. */
import { LONGEST_SOAK_H } from '#core/schedule'
import type { SoakLine } from '#shared/answers/prepare'
import { eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { printers, endings, soaks } from '../../db/schema'
import { soakRefusal, stackOf } from '#core/limits'
import { notInFuture, refuseField, ask } from '../entry/refusal'
import { shopRules } from '../printers/ceilings'
import { listStacks } from '../printers/stack-read'
import type { soakSchema } from '#shared/entries/prepare'

/** Soaks of the last days, the newest first; those still running among them. */
export async function listSoaks(db: Connection, days = 30): Promise<SoakLine[]> {
  return await db.execute<SoakLine & Record<string, unknown>>(sql`
    select k.id::int, k.printer_id "printerId", p.name printer, m.name material, k.target_c "targetC",
    k.bed_c "bedC", k.part, k.minutes, k.basis,
    ${iso('k.occurred_at')} "from", ${iso('k.ended_at')} "to", k.outcome, u.name person,
      (select count(*)::int from readings r where r.printer_id = k.printer_id and r.at between k.occurred_at
      and coalesce(k.ended_at, now())) readings
    from standing_soaks k join printers p on p.id = k.printer_id left join materials m on m.id = k.material_id
    join people u on u.id = k.person_id
    where k.occurred_at > now() - ${days} * interval '1 day' order by k.occurred_at desc, k.id desc limit 60`)
}

/** Printers that soak now: their readings are kept. A soak that nobody ended is over after twelve hours. */
export async function soakingPrinters(db: Connection): Promise<number[]> {
  return (
    await db.execute<{ id: number }>(
      sql`select distinct printer_id id from standing_soaks
        where ended_at is null and occurred_at > now() - ${LONGEST_SOAK_H} * interval '1 hour'`,
    )
  ).map(r => r.id)
}

/** One reading each ten seconds; whichever process comes first. */
export async function keepReading(
  db: Connection,
  printerId: number,
  at: Date,
  bedC: number | null,
  chamberC: number | null,
): Promise<void> {
  const bucket = new Date(Math.floor(at.getTime() / 10_000) * 10_000)
  await db.execute(
    sql`insert into readings (printer_id, at, bed_c, chamber_c)
      values (${printerId}, ${bucket.toISOString()}, ${bedC}, ${chamberC}) on conflict do nothing`,
  )
}

export async function saveSoak(
  tx: Connection,
  s: z.output<typeof soakSchema>,
  personId: number,
): Promise<{ id: number; until: string }> {
  const occurredAt = notInFuture('occurredAt', s.occurredAt)
  const [printer] = await tx.select().from(printers).where(eq(printers.id, s.printerId)).for('no key update')
  if (!printer) refuseField('printerId', 'This printer is not known')
  await refuseTooHot(tx, s)
  const [open] = await tx.execute<{ id: number }>(
    sql`select id::int from standing_soaks where printer_id = ${s.printerId} and ended_at is null
      and occurred_at > now() - ${LONGEST_SOAK_H} * interval '1 hour' order by occurred_at desc limit 1`,
  )
  if (open)
    ask(
      [
        {
          code: 'soaking',
          field: 'printerId',
          message: `${printer.name} is soaking already. End that soak and start this one?`,
        },
      ],
      s.confirmed,
    )
  if (open)
    await tx.insert(endings).values({
      target: 'soak',
      targetId: open.id,
      outcome: 'stopped early',
      occurredAt,
      personId,
      note: 'another was started',
    })
  const { confirmed: _, chamberSetC: __, ...values } = s
  const [row] = await tx
    .insert(soaks)
    .values({ ...values, occurredAt, personId })
    .returning({ id: soaks.id })
  return { id: row!.id, until: new Date(occurredAt.getTime() + s.minutes * 60_000).toISOString() }
}

/** What a part in the heat does not stand is not started, whoever asks; with the bed that it would stand. */
async function refuseTooHot(tx: Connection, s: z.output<typeof soakSchema>): Promise<void> {
  const [printer] = await listStacks(tx, [s.printerId])
  const head = printer?.heads[0]
  if (!printer || !head) return
  const rules = await shopRules(tx)
  const stack = stackOf(printer, head.id)
  const said = soakRefusal(stack, { bedC: s.bedC, chamberC: stack.air.heater ? s.chamberSetC : null }, rules)
  if (said) refuseField(said.field, said.message)
}
