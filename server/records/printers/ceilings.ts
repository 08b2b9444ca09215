/**
 * The deciding part of each zone of each printer, as the lanes show it. Worked out from the stacks by the core and kept
 * in a table that can be thrown away: every screen reads it, and a stack changes a few times a year.
 */
import type { StackPrinter, ZoneLimit } from '#shared/answers/printers'
import { sql } from 'drizzle-orm'
import { ceilings, LIMITS_MODEL, type Rules } from '#core/limits'
import type { Connection } from '../../db/client'
import { idIn } from '../../db/ids'
import { stackCeilings } from '../../db/schema'
import { listStacks } from './stack-read'

export async function shopRules(db: Connection): Promise<Rules> {
  const [r] = await db.execute<Rules & Record<string, unknown>>(sql`
    select guard_hotend_c "guardHotendC", guard_bed_c "guardBedC", guard_chamber_c "guardChamberC",
    guard_hotend_checked_c "guardHotendCheckedC", guard_bed_checked_c "guardBedCheckedC",
    guard_chamber_checked_c "guardChamberCheckedC",
    room_c "roomC", bend_safety "bendSafety", coarse_c "coarseC", labour_per_hour "labourPerHour" from settings`)
  return { ...r! }
}

/** Guard band taken off; what is drawn rounds down, what is judged does not. */
export function zoneLimits(p: StackPrinter, rules: Rules): ZoneLimit[] {
  return ceilings(p, rules).map(c => {
    const stored = p.parts.find(x => x.id === c.part.id && x.role === c.part.role)
    return {
      id: c.part.id,
      zone: c.zone,
      headId: c.headId,
      limitC: c.limitC,
      fineC: c.fineC,
      shortC: c.shortC,
      of: c.of,
      inAir: c.inAir,
      heaterOff: c.heaterOff,
      part: c.part.name,
      basis: c.part.basis,
      note: c.part.note,
      enteredBy: stored?.enteredBy ?? null,
      enteredAt: stored?.enteredAt ?? null,
    }
  })
}

/**
 * Works them out anew, of some printers or of all. The lock makes whoever comes second see what the first one saved.
 */
export async function refreshCeilings(tx: Connection, printerIds?: readonly number[]): Promise<ZoneLimit[][]> {
  const these = idIn('id', printerIds)
  await tx.execute(sql`select id from printers where ${these} order by id for no key update`)
  const rules = await shopRules(tx)
  const out: ZoneLimit[][] = []
  for (const p of await listStacks(tx, printerIds)) {
    const limits = zoneLimits(p, rules)
    await tx
      .insert(stackCeilings)
      .values({ printerId: p.id, limits, model: LIMITS_MODEL })
      .onConflictDoUpdate({ target: stackCeilings.printerId, set: { limits, model: LIMITS_MODEL } })
    out.push(limits)
  }
  return out
}

/**
 * Printers that have none yet, and those whose limits another model worked out: all of them, in one go; a shop has some
 * dozens.
 */
export async function refreshMissingCeilings(db: Connection): Promise<void> {
  const rows = await db.execute<{ id: number }>(sql`
    select p.id from printers p left join stack_ceilings c on c.printer_id = p.id where c.printer_id is null
    or c.model <> ${LIMITS_MODEL}`)
  if (rows.length > 0)
    await db.transaction(tx =>
      refreshCeilings(
        tx,
        rows.map(r => r.id),
      ),
    )
}
