/** What a printer is kept up by, and what was found when it was done. */
import { z } from 'zod'
import { GUARDS } from '#core/chamber'
import { checkEvery, EVERY, FOUND, UPKEEP_KINDS } from '#core/schedule'
import { basis, confirmed, coreTakes, id, maybe, name, note, text, when } from './fields'
import { quantity } from './stock'

/** What the core calls a field, and the form. */
const EVERY_FIELDS = { hours: 'everyHours', kg: 'everyKg', days: 'everyDays' }
export const upkeepTaskFields = z
  .object({
    printerId: id,
    kind: z.enum(UPKEEP_KINDS, { error: 'Choose what it is' }),
    name: name(80),
    everyHours: maybe(...EVERY.hours, 'h').default(null),
    everyKg: maybe(...EVERY.kg, 'kg').default(null),
    everyDays: maybe(...EVERY.days, 'days').default(null),
    /** What a test of a cut-out is of. */
    guard: z.enum(GUARDS, { error: 'Choose which' }).nullable().default(null),
    /** What it takes from the shelf each time, and how much of it. */
    stockItemId: id.nullable().default(null),
    stockQuantity: quantity.nullable().default(null),
    basis,
    note,
    withdrawn: z.boolean().default(false),
  })
  .superRefine((t, ctx) => {
    coreTakes(ctx, [], () => checkEvery({ hours: t.everyHours, kg: t.everyKg, days: t.everyDays }), EVERY_FIELDS)
    if ((t.stockItemId === null) !== (t.stockQuantity === null))
      ctx.addIssue({
        code: 'custom',
        path: [t.stockItemId === null ? 'stockItemId' : 'stockQuantity'],
        message: t.stockItemId === null ? 'Choose what it takes' : 'Enter how much it takes',
      })
    if (t.kind === 'cut-out test' && t.guard === null)
      ctx.addIssue({ code: 'custom', path: ['guard'], message: 'Choose which cut-out' })
    if (t.kind === 'cut-out test' && t.everyDays === null)
      ctx.addIssue({ code: 'custom', path: ['everyDays'], message: 'A cut-out is tested by days' })
    if (t.kind !== 'cut-out test' && t.guard !== null)
      ctx.addIssue({ code: 'custom', path: ['guard'], message: 'Only a test of a cut-out is of one' })
  })

/** The usual upkeep of a printer, by the parts that it has. */
export const upkeepPlanSchema = z.object({ printerId: id, note, confirmed })

export const upkeepSchema = z
  .object({
    taskId: id,
    found: z.enum(FOUND, { error: 'Say what was found' }),
    says: text(300).default(''),
    /** How much of its item this took from the shelf; null: nothing. */
    took: quantity.nullable().default(null),
    note,
    occurredAt: when,
    confirmed,
  })
  .superRefine((u, ctx) => {
    if (u.found === 'needs work' && u.says.length < 3)
      ctx.addIssue({ code: 'custom', path: ['says'], message: 'Say what needs work' })
  })
