/**
 * Exactly once: an entry and its answer are stored in one transaction under the entry's key. The same key with the same
 * body gets the first answer again (after 90 days: that it is stored already); with another body it is refused.
 */
import { createHash } from 'node:crypto'
import { eq, sql } from 'drizzle-orm'
import type { Connection, Database } from '../../db/client'
import { answers } from '../../db/schema'
import { Refusal } from './refusal'

/** Text that is the same for the same values, whatever the order of the fields. */
export function canonical(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(canonical).join(',')}]`
  if (value !== null && typeof value === 'object')
    return `{${Object.entries(value)
      .filter(([, v]) => v !== undefined)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([k, v]) => `${JSON.stringify(k)}:${canonical(v)}`)
      .join(',')}}`
  return JSON.stringify(value) ?? 'null'
}

/** A short name of what something was worked out from: the same for the same values. */
export const basisOf = (value: unknown): string => createHash('sha256').update(canonical(value)).digest('hex')

export interface Entry {
  key: string
  route: string
  body: unknown
  personId: number
}

export async function once<T>(
  db: Database,
  entry: Entry,
  save: (tx: Connection) => Promise<T>,
): Promise<{ answer: T; repeated: boolean }> {
  const bodySha256 = createHash('sha256')
    .update(`${entry.route}\n${canonical(entry.body)}`)
    .digest('hex')
  return await db.transaction(async tx => {
    await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${entry.key}, 7))`)
    const [known] = await tx.select().from(answers).where(eq(answers.key, entry.key))
    if (known) {
      if (known.bodySha256 !== bodySha256)
        throw new Refusal({
          type: 'urn:iron-nozzle:reused-key',
          status: 422,
          title: 'This key was used for another entry; send the changed entry with a new key',
        })
      if (known.answer === null)
        throw new Refusal({
          type: 'urn:iron-nozzle:already-stored',
          status: 409,
          title: `Already stored, on ${known.recordedAt.toISOString()}: nothing was stored again`,
        })
      return { answer: known.answer as T, repeated: true }
    }
    const answer = await save(tx)
    await tx
      .insert(answers)
      .values({ key: entry.key, route: entry.route, bodySha256, personId: entry.personId, answer })
    return { answer, repeated: false }
  })
}
