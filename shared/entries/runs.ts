/** Runs and the job files they were of. */
import { SYMPTOMS } from '../choices'
import { z } from 'zod'
import { MOST_TOOLS } from '#core/gcode'
import { DIAMETER_MM } from '#core/materials'
import { RUN_H } from '#core/runs'
import { between, id, name, when, note, confirmed, replaces, text } from './fields'

export const amountSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('job') }),
  z.object({ kind: z.literal('grams'), grams: between(0.01, 50_000, 'g') }),
  z.object({ kind: z.literal('metres'), metres: between(0.001, 20_000, 'm') }),
  z
    .object({ kind: z.literal('weights'), beforeG: between(1, 25_000, 'g'), afterG: between(1, 25_000, 'g') })
    .refine(w => w.afterG < w.beforeG, { path: ['afterG'], error: 'The spool must weigh less after than before' }),
])

export const runToolSchema = z
  .object({
    tool: z.number().int().min(0),
    headId: id,
    nozzleId: id,
    spoolId: id.nullable().default(null),
    materialId: id.nullable().default(null),
    amount: amountSchema,
    setC: between(0, 600, '°C').nullable().default(null),
  })
  .refine(t => t.spoolId !== null || t.materialId !== null, {
    path: ['spoolId'],
    error: 'Choose the spool, or at least the material',
  })

const figure = z.number().min(0).nullable()
/**
 * What a run or a check reads of a scan; the rest of it comes along as it is. Parts that old scans lack may be missing.
 */
export const scanFields = z.looseObject({
  filamentDiameterMm: between(...DIAMETER_MM, 'mm'),
  dialect: z.enum(['eIndependent', 'eFollowsPositioning']).optional(),
  tools: z
    .array(
      z.object({
        index: z.number().int().min(0),
        extrudedMm: z.number().min(0),
        offPartMm: z.number().min(0),
        printingMm: z.number().min(0),
      }),
    )
    .max(MOST_TOOLS),
  maxSetpointC: z.object({
    tools: z.record(z.string().max(10), z.number()),
    bed: z.number().nullable(),
    chamber: z.number().nullable(),
  }),
  moveSeconds: figure.optional(),
  flow: z.looseObject({ peak: figure }).nullable().optional(),
  toolFlow: z
    .array(z.looseObject({ index: z.number().int().min(0), peak: figure }))
    .max(MOST_TOOLS)
    .nullable()
    .optional(),
  fan: z.object({ max: figure, mean: figure }).nullable().optional(),
  firstLayer: z.object({ heightMm: z.number(), meanMmS: z.number() }).nullable().optional(),
})

export const jobSchema = z.object({
  name: name(255),
  contentSha256: z.string().regex(/^[0-9a-f]{64}$/),
  sizeBytes: z
    .number()
    .int()
    .min(0)
    .max(2 ** 53 - 1),
  scan: scanFields.extend({
    totalExtrudedMm: z.number().positive('Nothing is extruded in this file'),
    profile: z
      .array(
        z.object({
          percent: z.number(),
          extrudedMm: z.array(z.number()).max(MOST_TOOLS),
          seconds: z.number(),
          zMm: z.number(),
        }),
      )
      .length(101)
      .nullable(),
  }),
})

export const runSchema = z
  .object({
    printerId: id,
    jobId: id.nullable().default(null),
    /** A job that is not stored yet comes along with its first run, so that both are stored or neither. */
    job: jobSchema.nullable().default(null),
    name: name(255),
    endedAt: when,
    hours: between(...RUN_H, 'h')
      .nullable()
      .default(null),
    outcome: z.enum(['finished', 'failed']),
    stopped: z
      .discriminatedUnion('kind', [
        z.object({ kind: z.literal('percent'), value: between(0, 100, '%') }),
        z.object({ kind: z.literal('height'), value: between(0, 2000, 'mm') }),
        z.object({ kind: z.literal('weighed'), value: between(0.01, 50_000, 'g') }),
      ])
      .nullable()
      .default(null),
    symptoms: z.array(z.enum(SYMPTOMS)).max(9).default([]),
    bedSetC: between(0, 300, '°C').nullable().default(null),
    chamberSetC: between(0, 300, '°C').nullable().default(null),
    /** What it was printed on, sheet and adhesive as they are written: "PEI + glue stick". */
    surface: text(80).min(1).nullable().default(null),
    /** The check before this run, if one was made. */
    precheckId: id.nullable().default(null),
    note,
    tools: z.array(runToolSchema).min(1, 'At least one tool').max(32),
    confirmed,
    replaces,
  })
  .refine(r => r.job === null || r.jobId === null, { path: ['job'], error: 'Either a stored job or a new one' })
  .refine(r => r.outcome === 'failed' || r.stopped === null, {
    path: ['stopped'],
    error: 'Only a failed job stopped early',
  })

export type RunEntry = z.input<typeof runSchema>
