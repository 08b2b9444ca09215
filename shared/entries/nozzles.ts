/** Nozzles, their types and gauges. */
import { SHAPES } from '../choices'
import { z } from 'zod'
import { MAKERS_NM } from '#core/changeover'
import { GAUGED_MM, NOZZLE_MATERIALS } from '#core/wear'
import { pictureSchema } from './pictures'
import { text, howMany, id, when, between, note, confirmed, name, basis, replaces, share, tag } from './fields'

const pinMark = text(20)
  .nullable()
  .default(null)
  .transform(v => v || null)
export const gaugeSchema = z
  .object({
    nozzleId: id,
    occurredAt: when,
    goMm: between(...GAUGED_MM, 'mm')
      .nullable()
      .default(null),
    noGoMm: between(...GAUGED_MM, 'mm')
      .nullable()
      .default(null),
    goPin: pinMark,
    noGoPin: pinMark,
    valueMm: between(...GAUGED_MM, 'mm')
      .nullable()
      .default(null),
    uMm: between(0.0001, 0.2, 'mm').nullable().default(null),
    tipMm: between(1, 60, 'mm').nullable().default(null),
    tipUMm: between(0.001, 1, 'mm').nullable().default(null),
    shape: z.array(z.enum(SHAPES)).default([]),
    picture: pictureSchema.nullable().default(null),
    note,
    confirmed,
    replaces,
  })
  .superRefine((g, ctx) => {
    const say = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message })
    if (g.goMm !== null && g.noGoMm !== null && g.goMm >= g.noGoMm)
      say('goMm', `The go pin (${g.goMm}) must be smaller than the no-go pin (${g.noGoMm})`)
    if (g.valueMm !== null && (g.goMm !== null || g.noGoMm !== null)) say('valueMm', 'Either pins or a value, not both')
    if (g.valueMm !== null && g.uMm === null) say('uMm', 'Enter how sure the value is (± mm)')
    if (g.picture !== null && g.valueMm === null) say('valueMm', 'A picture comes with the bore it showed')
    if (g.picture !== null && g.uMm !== null && g.picture.uSharedMm > g.uMm)
      say('uMm', 'Not surer than the part that all pictures of the set-up share')
    if (g.goMm === null && g.noGoMm === null && g.valueMm === null && g.tipMm === null && g.shape.length === 0)
      say('goMm', 'Enter a pin, a value, a tip length or what you saw')
  })

export const nozzleTypeFields = z.object({
  name: name(60),
  material: z.enum(NOZZLE_MATERIALS),
  nominalBoreMm: between(0.1, 2, 'mm'),
  lengthMm: between(5, 40, 'mm'),
  coneDeg: between(20, 120, '°'),
  tipFlatMm: between(0.2, 6, 'mm'),
  landMm: between(0.1, 10, 'mm'),
  inletMm: between(1, 5, 'mm'),
  insertMm: between(0.5, 6, 'mm').nullable().default(null),
  boreGrowthLimit: share(0.01, 1, '%').nullable().default(0.1),
  tipLossLimitMm: between(0.01, 2, 'mm').nullable().default(0.15),
  massLimitKg: between(0.001, 1000, 'kg').nullable().default(null),
  /** The maker's, where its sheet gives one. */
  torqueNm: between(...MAKERS_NM, 'N·m')
    .nullable()
    .default(null),
  basis,
  note,
})
export const nozzleTypeSchema = nozzleTypeFields.superRefine((t, ctx) => {
  const say = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message })
  if (t.tipFlatMm <= t.nominalBoreMm) say('tipFlatMm', 'The tip flat must be wider than the bore')
  if (t.inletMm <= t.nominalBoreMm) say('inletMm', 'The inlet must be wider than the bore')
  if (t.landMm >= t.lengthMm) say('landMm', 'The land must be shorter than the nozzle')
  if (t.boreGrowthLimit === null && t.tipLossLimitMm === null && t.massLimitKg === null)
    say('boreGrowthLimit', 'At least one retire rule')
})

const nozzleFields = z.object({ law: z.enum(['sliding', 'linear']), note })
/** What an edit may put right; what is not named stays. */
export const nozzleEditFields = nozzleFields
  .extend({ tag, typeId: id, wasUsed: z.boolean() })
  .partial({ law: true, tag: true, typeId: true, wasUsed: true })
export const nozzleSchema = z
  .object({
    tag,
    howMany,
    typeId: id,
    wasUsed: z.boolean().default(false),
    note,
    receivedAt: when,
    confirmed,
    receipt: z
      .object({
        goMm: between(...GAUGED_MM, 'mm')
          .nullable()
          .default(null),
        noGoMm: between(...GAUGED_MM, 'mm')
          .nullable()
          .default(null),
        valueMm: between(...GAUGED_MM, 'mm')
          .nullable()
          .default(null),
        uMm: between(0.0001, 0.2, 'mm').nullable().default(null),
        tipMm: between(1, 60, 'mm').nullable().default(null),
      })
      .nullable()
      .default(null),
  })
  .superRefine((n, ctx) => {
    const r = n.receipt
    if (n.howMany > 1 && r && Object.values(r).some(x => x !== null))
      ctx.addIssue({
        code: 'custom',
        path: ['howMany'],
        message: 'A receipt gauge is of one nozzle: enter that one by itself, or gauge them afterwards',
      })
    if (r && r.goMm !== null && r.noGoMm !== null && r.goMm >= r.noGoMm)
      ctx.addIssue({
        code: 'custom',
        path: ['receipt', 'goMm'],
        message: `The go pin (${r.goMm}) must be smaller than the no-go pin (${r.noGoMm})`,
      })
    if (r && r.valueMm !== null && (r.goMm !== null || r.noGoMm !== null))
      ctx.addIssue({ code: 'custom', path: ['receipt', 'valueMm'], message: 'Either pins or a value, not both' })
  })
export type GaugeEntry = z.input<typeof gaugeSchema>
export type NozzleTypeEntry = z.input<typeof nozzleTypeSchema>
