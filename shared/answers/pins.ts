/** Pin gauges: what each measures, until when that holds, and how many gauges rest on it. */
import { z } from 'zod'
import { due } from './upkeep'
import { id, maybe, number, struckFor, text, time } from './parts'

export const pinCertificate = z.object({
  id,
  sizeMm: number,
  /** Standard uncertainty, mm. */
  uMm: number,
  dueOn: maybe(text),
  note: text,
  at: time,
  by: text,
  struck: struckFor,
})
export const pinLine = z.object({
  id,
  mark: text,
  nominalMm: number,
  note: text,
  withdrawn: z.boolean(),
  version: id,
  /** The latest first; struck ones among them. */
  certificates: z.array(pinCertificate),
  /** Gauges made with it, and of how many nozzles. */
  gauges: number,
  nozzles: number,
  due: maybe(due),
})
export type PinLine = z.output<typeof pinLine>

export const certificateEffect = z.object({
  id,
  mark: text,
  /** Gauges that count by it, and the nozzles that are worked out anew. */
  gauges: number,
  nozzles: z.array(text),
})
