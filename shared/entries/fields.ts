/** The fields that entries are made of. Messages say what to do; units stand in the names. */
import { ENTERED_BASES } from '../choices'
import { z } from 'zod'
import { MOST_ALIKE } from '#core/intake'
import { BASES } from '#core/limits'
import { InputError } from '#core/numeric'
import { percentOf } from '../share'

const TAG = /^[A-Za-z0-9][A-Za-z0-9._-]{0,19}$/

export const between = (low: number, high: number, unit: string, said = (v: number) => v) =>
  z
    .number({ error: 'Enter a number' })
    .min(low, `At least ${said(low)} ${unit}`)
    .max(high, `At most ${said(high)} ${unit}`)
/** Kept as a share of 1, said in per cent. */
export const share = (low: number, high: number, unit: 'wt%' | '%') => between(low, high, unit, percentOf)
/** Identifiers are integers of the database. */
export const id = z
  .number({ error: 'Choose one' })
  .int()
  .positive()
  .max(2 ** 31 - 1, 'This is not known')
export { id as idSchema }
export const text = (max: number) => z.string().trim().max(max, `At most ${max} characters`)
export const name = (max: number) => text(max).min(1, 'Enter a name')
export const note = text(2000).default('')
/** The first year that an entry can be of: a log older than this is a slip of the keyboard. */
const FIRST_YEAR = 2000
export const when = z.iso
  .datetime({ offset: true, abort: true, error: 'Enter a date and time' })
  .refine(t => new Date(t).getTime() >= Date.UTC(FIRST_YEAR, 0, 1), {
    error: `Enter a date from the year ${FIRST_YEAR} on`,
  })
/**
 * What only the core can tell of a whole: its refusal stands at the field that it names; `called`: what the entry calls
 * those that it has another name for.
 */
export function coreTakes(
  ctx: z.RefinementCtx,
  at: readonly string[],
  check: () => void,
  called: Readonly<Record<string, string>> = {},
): void {
  try {
    check()
  } catch (e) {
    if (!(e instanceof InputError)) throw e
    const path = [...at, ...e.field.split('.').map(k => called[k] ?? k)]
    ctx.addIssue({
      code: 'custom',
      path: path.map(k => (/^\d+$/.test(k) ? Number(k) : k)),
      message: `Enter ${e.allowed}`,
    })
  }
}
/** Answers to questions that were asked and confirmed, by code. */
export const confirmed = z.array(z.string()).max(20).default([])
/** Why an entry is struck out. */
export const strikeReason = text(300).min(3, 'Say why it is struck out')
/** The entry whose place this one takes: it is struck out in the same step, or nothing is stored. */
export const replaces = z.object({ id, reason: strikeReason }).nullable().default(null)
export const basis = z.enum(ENTERED_BASES, { error: 'Say where the value comes from' })
export const partBasis = z.enum(BASES, { error: 'Say where the value comes from' })
/** Here no longer: it leaves the screens, what it did stays. */
export const outOfUse = z.boolean().default(false)
export const tag = z
  .string()
  .trim()
  .regex(TAG, 'Letters, digits, dot and dash, up to 20, starting with a letter or digit')

/** So many alike at once, their tags one after the other. */
export const howMany = between(1, MOST_ALIKE, '').int('A whole number').default(1)

export const maybe = (low: number, high: number, unit: string) => between(low, high, unit).nullable()

export const gross = between(1, 25_000, 'g').nullable().default(null)
