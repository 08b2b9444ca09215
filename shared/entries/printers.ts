/** Printers as stacks of parts, what is changed on them, and the fitting of nozzles. */
import { z } from 'zod'
import { capital } from '#core/words'
import {
  DRYERS_ARE_THE_SHOPS,
  kindOf,
  DETAIL_RANGES,
  isKind,
  PLACES,
  stackProblems,
  START_RULES,
  VENTILATION,
  type DescribedPart,
  SHEETS,
} from '#core/limits'
import { id, text, when, confirmed, between, name, maybe, note, outOfUse, partBasis, replaces } from './fields'

export const fittingSchema = z
  .object({
    kind: z.enum(['fit', 'remove', 'retire']),
    nozzleId: id,
    headId: id.nullable().default(null),
    reason: text(300).default(''),
    occurredAt: when,
    confirmed,
    replaces,
  })
  .superRefine((f, ctx) => {
    if (f.kind === 'retire' && f.reason.length < 3)
      ctx.addIssue({ code: 'custom', path: ['reason'], message: 'Say why it is retired' })
    if (f.kind === 'fit' && f.headId === null)
      ctx.addIssue({ code: 'custom', path: ['headId'], message: 'Choose the head' })
  })
const detail = (key: keyof typeof DETAIL_RANGES, unit: string) => between(...DETAIL_RANGES[key], unit).optional()
const theta = (key: keyof typeof DETAIL_RANGES) => detail(key, '(share of the way from room to bed)')
/** What is known of a part beside its limit. */
export const detailsSchema = z.strictObject({
  element: z.enum(['ntc', 'platinum', 'type K']).optional(),
  r25Ohm: detail('r25Ohm', 'Ω'),
  betaK: detail('betaK', 'K'),
  pullUpOhm: detail('pullUpOhm', 'Ω'),
  bits: detail('bits', 'bits'),
  countMicrovolt: detail('countMicrovolt', 'µV'),
  hardened: z.boolean().optional(),
  bendMm: detail('bendMm', 'mm'),
  freedBendMm: detail('freedBendMm', 'mm'),
  bendWay: z.enum(['with', 'against']).optional(),
  freedNeedsLidOff: z.boolean().optional(),
  surface: z.enum(SHEETS, { error: 'Choose what the sheet is made of' }).optional(),
  reachC: detail('reachC', '°C'),
  level: z.enum(VENTILATION).optional(),
  mains: z.boolean().optional(),
  opening: z.enum(['vent open', 'raised']).optional(),
  thetaU: theta('thetaU'),
  offsetU: detail('offsetU', '°C'),
  thetaLow: theta('thetaLow'),
  thetaHigh: theta('thetaHigh'),
  thetaBay: theta('thetaBay'),
  openThetaLow: theta('openThetaLow'),
  openThetaHigh: theta('openThetaHigh'),
  offsetLow: detail('offsetLow', '°C'),
  offsetHigh: detail('offsetHigh', '°C'),
  offsetBay: detail('offsetBay', '°C'),
})
const limitC = between(START_RULES.roomC, 800, '°C, which is room temperature').nullable()
const shortBelow = (p: { limitC?: number | null; shortC?: number | null }) =>
  p.limitC == null || p.shortC == null || p.shortC >= p.limitC
const shortSays = { path: ['shortC'], error: 'The short-time limit is not below the continuous one' }
export const partFields = z
  .object({
    name: name(60),
    place: z.enum(PLACES),
    limitC,
    shortC: maybe(20, 900, '°C').default(null),
    basis: partBasis,
    note,
    details: detailsSchema.default({}),
  })
  .refine(shortBelow, shortSays)
export const describedPart = z.object({
  kind: z.string().trim().min(1, 'Choose a kind').max(60),
  head: z.number().int().min(0).max(15).nullable().default(null),
  name: name(60).optional(),
  place: z.enum(PLACES).optional(),
  limitC: maybe(20, 800, '°C').optional(),
  shortC: maybe(20, 900, '°C').optional(),
  basis: partBasis.optional(),
  note: text(2000).optional(),
  details: detailsSchema.optional(),
})
/** What a printer is not used for: no camera, one customer only. */
const restrictions = z.array(text(80).min(2, 'Say what it is not used for')).max(8, 'At most 8').default([])
export const printerFields = z.object({ name: name(40), kind: name(80), note, restrictions, outOfUse })
/** A printer as a stack: also the format in which one is written out and read in. */
export const printerSchema = printerFields
  .extend({
    /** New or rebuilt: it is commissioned before it runs. */
    toCommission: z.boolean().default(false),
    heads: z
      .array(z.object({ name: name(40) }))
      .min(1, 'At least one head')
      .max(16),
    parts: z.array(describedPart).min(1, 'At least one part').max(200),
  })
  .superRefine((p, ctx) => {
    for (const x of stackProblems({ heads: p.heads, parts: p.parts as DescribedPart[] }, START_RULES.roomC))
      ctx.addIssue({
        code: 'custom',
        path: x.field.split('.').map(k => (/^\d+$/.test(k) ? Number(k) : k)),
        message: x.message,
      })
  })

export const knownKind = z
  .string()
  .refine(isKind, { error: 'There is no such part kind; the catalogue lists them' })
  .refine(k => !isKind(k) || kindOf(k).role !== 'dryer', { error: capital(DRYERS_ARE_THE_SHOPS) })
/** A part for the shelf, with its kind's start values unless others are given. */
export const shelfPartSchema = z.object({
  kind: knownKind,
  name: name(60).optional(),
  limitC: limitC.optional(),
  basis: partBasis.optional(),
  note,
  details: detailsSchema.optional(),
})

/** What is changed on a printer, all at one time. Parts that come off go to the shelf. */
export const changeSchema = z
  .object({
    printerId: id,
    text: text(2000).min(3, 'Say what was done'),
    occurredAt: when,
    remove: z.array(id).max(200).default([]),
    /** Parts from the shelf. */
    fit: z
      .array(z.object({ partId: id, headId: id.nullable().default(null) }))
      .max(200)
      .default([]),
    /** Parts that the shop had not recorded. */
    add: z
      .array(
        describedPart
          .omit({ head: true })
          .extend({ kind: knownKind, headId: id.nullable().default(null), limitC: limitC.optional() }),
      )
      .max(200)
      .default([]),
    nozzles: z
      .array(z.object({ nozzleId: id, headId: id }))
      .max(16)
      .default([]),
    /** A hotend from the shelf on a head, or none; the one before goes to the shelf with all that is in it. */
    hotends: z
      .array(z.object({ headId: id, hotendId: id.nullable() }))
      .max(16)
      .default([]),
    confirmed,
  })
  .refine(c => c.remove.length + c.fit.length + c.add.length + c.nozzles.length + c.hotends.length > 0, {
    path: ['remove'],
    error: 'Nothing is changed',
  })
export type PrinterEntry = z.input<typeof printerSchema>
export type ChangeEntry = z.input<typeof changeSchema>
