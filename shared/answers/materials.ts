/** Materials with everything that the limits ask of them. */
import { z } from 'zod'
import { CHAMBER_LEVELS, VALUE_KEYS, type ValueKey } from '#core/limits'
import { FILLERS } from '#core/wear'
import { basis, id, maybe, number, text, time, ventilation } from './parts'

export const material = z.object({
  id,
  name: text,
  polymer: text,
  filler: z.enum(FILLERS),
  fillerFraction: number,
  densityGCm3: maybe(number),
  abrasivity: number,
  ventilation: maybe(ventilation),
  basis,
  note: text,
  version: id,
})
export const fact = z.object({
  id,
  key: z.enum(VALUE_KEYS as [ValueKey, ...ValueKey[]]),
  value: number,
  basis,
  note: text,
  version: id,
  enteredBy: text,
  enteredAt: time,
})
export type FactRow = z.output<typeof fact>

export const practiceSet = z.object({
  id,
  materialId: id,
  name: text,
  conditions: text,
  enclosed: z.boolean(),
  bedMinC: maybe(number),
  bedMaxC: maybe(number),
  chamber: z.enum(CHAMBER_LEVELS),
  chamberMinC: maybe(number),
  chamberMaxC: maybe(number),
  dry: z.boolean(),
  dryMinC: maybe(number),
  dryMaxC: maybe(number),
  dryHoursMin: maybe(number),
  dryHoursMax: maybe(number),
  surfaces: z.array(text),
  basis,
  note: text,
  withdrawn: z.boolean(),
  version: id,
})
export type SetRow = z.output<typeof practiceSet>

export const materialRow = material.extend({ values: z.array(fact), sets: z.array(practiceSet) })
export type MaterialRow = z.output<typeof materialRow>
