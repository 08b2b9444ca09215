/** How long nozzles of a type live, in kg of fibre weighted by abrasivity (carbon 1). */
import { z } from 'zod'
import { LIFE_ENDS, type LifeRecord } from '#core/life'
import { FILLERS, NOZZLE_MATERIALS } from '#core/wear'
import { id, maybe, number, text } from './parts'

const record = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('failed'), at: number }),
  z.object({ kind: z.literal('survived'), until: number }),
  z.object({ kind: z.literal('between'), from: number, to: number }),
]) satisfies z.ZodType<LifeRecord>

const range = z.object({ low80: maybe(number), high80: maybe(number) })

export const typeFit = z.object({
  shape: number,
  scale: number,
  b10: number,
  mean: number,
  ranges: z.object({ b10: range, mean: range, shape: range }),
})

export const typeLife = z.object({
  typeId: id,
  typeName: text,
  material: z.enum(NOZZLE_MATERIALS),
  /** What four fifths of the wear of its nozzles came from; null for all nozzles of the type together. */
  filler: maybe(z.enum([...FILLERS, 'several'])),
  nozzles: z.array(z.object({ id, tag: text, end: z.enum(LIFE_ENDS), record: maybe(record) })),
  fit: maybe(typeFit),
  cannotTell: maybe(text),
  /** What the wear model expects of a new one by its bore rule; null where none goes by the bore. */
  model: maybe(z.object({ meanLn: number, sd: number, sisters: id })),
})
export type TypeLife = z.output<typeof typeLife>
