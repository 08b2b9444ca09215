/** What is kept on the shelf, and what came and went of it. */
import { z } from 'zod'
import { PRICE, QUANTITY, STOCK_KINDS, STOCK_MOVES, STOCK_UNITS, TAGGED_KINDS, USED_BY } from '#core/stock'
import { confirmed, id, maybe, name, note, when } from './fields'

/** A quantity says at its field what is wrong with it: no count is below zero. */
export const quantity = z
  .number({ error: 'Enter a number' })
  .min(QUANTITY[0], 'A quantity is not below zero')
  .max(QUANTITY[1], `At most ${QUANTITY[1]}`)

export const stockItemFields = z
  .object({
    kind: z.enum(STOCK_KINDS, { error: 'Choose what it is' }),
    name: name(80),
    unit: z.enum(STOCK_UNITS, { error: 'Choose' }).default('pieces'),
    /** Of which type a nozzle is: those are counted by their tags. */
    nozzleTypeId: id.nullable().default(null),
    minimum: quantity.nullable().default(null),
    /** What takes one of it by itself. */
    usedBy: z.enum(USED_BY).nullable().default(null),
    price: maybe(...PRICE, '').default(null),
    pricedOn: z.iso.date({ error: 'Enter a date' }).nullable().default(null),
    note,
    withdrawn: z.boolean().default(false),
  })
  .superRefine((s, ctx) => {
    const say = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message })
    if (s.kind === 'nozzle' && s.nozzleTypeId === null) say('nozzleTypeId', 'Choose the type')
    if (s.kind !== 'nozzle' && s.nozzleTypeId !== null) say('nozzleTypeId', 'Only nozzles are of a nozzle type')
    if (TAGGED_KINDS.includes(s.kind) && s.unit !== 'pieces') say('unit', 'What has tags is counted in pieces')
    if (TAGGED_KINDS.includes(s.kind) && s.usedBy !== null) say('usedBy', 'What has tags leaves the shelf by its tag')
    if (s.unit === 'pieces' && s.minimum !== null && !Number.isInteger(s.minimum)) say('minimum', WHOLE)
    if (s.price !== null && s.pricedOn === null) say('pricedOn', 'Enter the day of the price')
    if (s.price === null && s.pricedOn !== null) say('price', 'Enter the price of that day')
  })
/** What a number of pieces is told when it is none. */
export const WHOLE = 'A whole number of pieces'

export const stockMoveSchema = z
  .object({
    itemId: id,
    kind: z.enum(STOCK_MOVES, { error: 'Choose what happened' }),
    quantity,
    note,
    occurredAt: when,
    confirmed,
  })
  .superRefine((m, ctx) => {
    if (m.kind !== 'counted' && m.quantity === 0)
      ctx.addIssue({ code: 'custom', path: ['quantity'], message: 'Enter how many' })
  })
