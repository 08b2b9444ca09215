/** What is due put off for a reason, and calendars that read what is due. */
import { z } from 'zod'
import { confirmed, name, text, when } from './fields'

export const snoozeSchema = z.object({
  key: text(400).min(3, 'Say what'),
  until: when,
  reason: text(300).min(3, 'Say why it can wait'),
  occurredAt: when,
  confirmed,
})

/** A calendar: the browser makes the secret of its address and sends what it hashes to. */
export const feedSchema = z.object({
  name: name(60),
  tokenSha256: z.string().regex(/^[0-9a-f]{64}$/, 'The SHA-256 of the secret in its address, 64 hexadecimal digits'),
  confirmed,
})
/** One that is revoked stays so. */
export const feedFields = z.object({ name: name(60), revoked: z.boolean().default(false) })
