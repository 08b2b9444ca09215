/** What answers are made of. Times are ISO in UTC (`…Z`), the one form in which the API tells a time. */
import { ENTERED_BASES } from '../choices'
import { z } from 'zod'
import { VENTILATION, BASES } from '#core/limits'

export const time = z.iso.datetime()
export const maybe = <T extends z.ZodType>(schema: T) => schema.nullable()
export const number = z.number()
export const text = z.string()
export const id = z.number().int()
export const basis = z.enum(ENTERED_BASES)
/** Of a part: also a start value that nobody entered. */
export const partBasis = z.enum(BASES)
export const ventilation = z.enum(VENTILATION)
/** Why an entry is struck out; null while it stands. */
export const struckFor = text.nullable()
export const struckBy = z.object({ reason: text, person: text }).nullable()
export type StruckBy = z.output<typeof struckBy>
/** A saved entry's answer where nothing more is to be said. */
export const stored = z.object({ id })

/** How a line or a printer stands: the shape of its mark says it. */
export const mark = z.enum(['fine', 'look', 'stop'])
export type Mark = z.output<typeof mark>

/** The middle of an estimate and its 80 % range. */
export const range80 = z.object({ median: number, low80: number, high80: number })
export type Range80 = z.output<typeof range80>
