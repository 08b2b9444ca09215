/** What printers and the balance report. */
import { z } from 'zod'
import { maybe, number, text, time } from './parts'

const value = z.object({ nowC: number, setC: maybe(number) })
/** What a printer reports now. */
export const live = z.object({
  heads: z.array(value),
  bed: value.nullable(),
  chamber: value.nullable(),
  printer: text,
  /** When it last reported; null when it never did. */
  at: maybe(time),
  /** Since when it has been silent; its values are not shown then. */
  lostSince: maybe(time),
})
export type Live = z.output<typeof live>
export const links = z.object({
  printers: z.array(text),
  balance: z.boolean(),
  fineBalance: z.boolean(),
  microscope: z.boolean(),
  thermometer: z.boolean(),
  standIns: z.boolean(),
})
/** What a thermometer's channels read, °C; null where no probe is on one. */
export const temperatures = z.object({ channels: z.array(maybe(number)), standIn: z.boolean() })
/** What a balance reads, and to what step. */
export const weight = z.object({ grossG: number, stepG: number, standIn: z.boolean() })
