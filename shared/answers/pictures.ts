/** Set-ups and their scales. */
import { SCALE_WAYS } from '../choices'
import { z } from 'zod'
import { id, maybe, number, text, time } from './parts'

export const scaleLine = z.object({
  id,
  how: z.enum(SCALE_WAYS),
  knownMm: maybe(number),
  umPerPx: number,
  uUmPerPx: number,
  at: time,
  person: text,
  note: text,
  struck: maybe(text),
})
export type ScaleLine = z.output<typeof scaleLine>

export const setupLine = z.object({
  id,
  name: text,
  focusesItself: z.boolean(),
  tone: z.enum(['linear', 'srgb']).nullable(),
  dueDays: number,
  note: text,
  withdrawn: z.boolean(),
  version: id,
  /** All its scales, the latest first, struck ones among them. */
  scales: z.array(scaleLine),
  /** Standing gauges by it. */
  gauges: number,
})
export type SetupLine = z.output<typeof setupLine>
