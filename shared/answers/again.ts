/** Entries as they were sent, so that a form can be filled with them and they are entered again with what is right. */
import { z } from 'zod'
import { gaugeSchema } from '../entries/nozzles'
import { fittingSchema } from '../entries/printers'
import { runSchema } from '../entries/runs'
import { sensorCheckSchema } from '../entries/sensors'
import { spoolEventSchema } from '../entries/spools'
import { id, text, time } from './parts'

const of = <K extends string, B extends z.ZodType>(kind: K, body: B) =>
  z.object({ kind: z.literal(kind), id, at: time, person: text, body })
export const entered = z.discriminatedUnion('kind', [
  of('run', runSchema),
  of('gauge', gaugeSchema),
  of('spool event', spoolEventSchema),
  of('sensor check', sensorCheckSchema),
  of('fitting', fittingSchema),
])
export type Entered = z.output<typeof entered>
export type EnteredKind = Entered['kind']
export const ENTERED_KINDS = entered.options.map(o => o.shape.kind.value) as EnteredKind[]
export type EnteredOf<K extends EnteredKind> = Extract<Entered, { kind: K }>
