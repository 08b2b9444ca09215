/** Materials: their facts, each with its basis, and the practices of processing them. */
import { z } from 'zod'
import {
  ADHESIVES,
  CHAMBER_LEVELS,
  ORDERED_FACTS,
  readSurface,
  setProblems,
  SHEETS,
  surfaceText,
  VALUE_KEYS,
  VALUES,
  VENTILATION,
} from '#core/limits'
import { MOST_FILLER } from '#core/materials'
import { listed } from '#core/words'
import { DRYING_C } from '#core/drying'
import { FILLERS } from '#core/wear'
import { between, basis, note, id, name, share, text, maybe } from './fields'

const valueIn = (key: keyof typeof VALUES) => between(VALUES[key].min, VALUES[key].max, VALUES[key].unit)
const factSchema = z.object({ value: z.number({ error: 'Enter a number' }), basis, note })
export const materialValueFields = z
  .object({ key: z.enum(VALUE_KEYS as [keyof typeof VALUES, ...(keyof typeof VALUES)[]]), ...factSchema.shape })
  .superRefine(valueInRange)
export const materialValueSchema = z
  .object({
    materialId: id,
    key: z.enum(VALUE_KEYS as [keyof typeof VALUES, ...(keyof typeof VALUES)[]]),
    ...factSchema.shape,
  })
  .superRefine(valueInRange)
function valueInRange(
  v: { key: keyof typeof VALUES; value: number },
  ctx: { addIssue: (i: { code: 'custom'; path: (string | number)[]; message: string }) => void },
): void {
  const r = valueIn(v.key).safeParse(v.value)
  if (!r.success) ctx.addIssue({ code: 'custom', path: ['value'], message: r.error.issues[0]!.message })
}

/** What it holds on, each in the core's words. */
const surfaces = z
  .array(text(60))
  .max(12)
  .default([])
  .transform((typed, ctx) =>
    typed.flatMap(t => {
      const s = readSurface(t)
      if (s) return [surfaceText(s)]
      const message =
        `"${t}" is none of the surfaces. Sheets: ${listed(SHEETS, 'and')}; ` +
        `alone, or with + ${listed(ADHESIVES, 'or')}`
      ctx.addIssue({ code: 'custom', message })
      return []
    }),
  )
export const practiceSetFields = z
  .object({
    name: name(40),
    conditions: text(2000).default(''),
    enclosed: z.boolean().default(false),
    bedMinC: maybe(15, 300, '°C').default(null),
    bedMaxC: maybe(15, 300, '°C').default(null),
    chamber: z.enum(CHAMBER_LEVELS),
    chamberMinC: maybe(20, 250, '°C').default(null),
    chamberMaxC: maybe(20, 250, '°C').default(null),
    dry: z.boolean().default(true),
    dryMinC: maybe(...DRYING_C, '°C').default(null),
    dryMaxC: maybe(...DRYING_C, '°C').default(null),
    dryHoursMin: maybe(0.1, 200, 'h').default(null),
    dryHoursMax: maybe(0.1, 200, 'h').default(null),
    surfaces,
    basis,
    note,
    withdrawn: z.boolean().default(false),
  })
  .superRefine((s, ctx) => {
    for (const p of setProblems(s)) ctx.addIssue({ code: 'custom', path: [p.field], message: p.message })
  })
export const practiceSetSchema = z.object({ materialId: id, set: practiceSetFields })

export const materialFields = z.object({
  name: name(40),
  polymer: name(40),
  filler: z.enum(FILLERS),
  fillerFraction: share(0, MOST_FILLER, 'wt%'),
  densityGCm3: between(0.5, 10, 'g/cm³').nullable().default(null),
  abrasivity: between(0.0001, 10, '(carbon fibre 1)'),
  ventilation: z.enum(VENTILATION).nullable().default(null),
  basis,
  note,
})
const factsSchema = z
  .partialRecord(z.enum(VALUE_KEYS as [keyof typeof VALUES, ...(keyof typeof VALUES)[]]), factSchema)
  .superRefine((facts, ctx) => {
    for (const [k, f] of Object.entries(facts)) {
      const r = valueIn(k as keyof typeof VALUES).safeParse(f!.value)
      if (!r.success) ctx.addIssue({ code: 'custom', path: [k, 'value'], message: r.error.issues[0]!.message })
    }
    for (const [a, b] of ORDERED_FACTS)
      if (facts[a] && facts[b] && facts[a].value > facts[b].value)
        ctx.addIssue({
          code: 'custom',
          path: [b, 'value'],
          message: `Not below ${VALUES[a].label.toLowerCase()}, ${facts[a].value} ${VALUES[a].unit}`,
        })
  })
const fillerAgrees = (m: { filler: string; fillerFraction: number }) =>
  (m.filler === 'none') === (m.fillerFraction === 0)
const fillerSays = { path: ['fillerFraction'], error: 'A filler needs more than 0 wt%; without filler it is 0 wt%' }
export const materialEditSchema = materialFields.refine(fillerAgrees, fillerSays)
/** A new material may come with its facts and practice sets, each with its basis. */
export const materialSchema = materialFields
  .extend({ facts: factsSchema.default({}), sets: z.array(practiceSetFields).max(12).default([]) })
  .refine(fillerAgrees, fillerSays)
export type MaterialEntry = z.input<typeof materialSchema>
