/** Procedures and their ticks; printers out of service, and notes to the next shift. */
import { z } from 'zod'
import { THICKNESS_MM } from '#core/anneal'
import { BED_C } from '#core/cooling'
import { READ_C, WORDS_LONG } from '#core/procedures'
import { cropBase64 } from './pictures'
import { between, confirmed, id, name, note, text, when } from './fields'

/** What a procedure does; each kind has its steps in `core/procedures`. */
export const PROCEDURE_KINDS = ['swap', 'hotend', 'clog', 'commission'] as const
export type ProcedureKind = (typeof PROCEDURE_KINDS)[number]

/** What begins: its steps are worked out by the server. */
const begun = { note, occurredAt: when, confirmed }
export const procedureSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('swap'), headId: id, nozzleId: id, ...begun }),
  z.object({ kind: z.literal('hotend'), headId: id, hotendId: id, ...begun }),
  z.object({ kind: z.literal('clog'), headId: id, ...begun }),
  z.object({ kind: z.literal('commission'), printerId: id, ...begun }),
])

const value = z.union([z.string().trim().max(WORDS_LONG), z.number(), z.null()])
/** One step done; `reading` is what the heater of a wait showed. */
export const tickSchema = z.object({
  procedureId: id,
  step: text(60).min(1),
  values: z.record(z.string().max(60), value).default({}),
  /** Pictures by their field: bytes in base64. */
  photos: z.record(z.string().max(60), cropBase64).default({}),
  reading: z
    .object({
      c: between(...READ_C, '°C'),
      /** When the printer told it; null for what a person read at the printer. */
      at: when.nullable().default(null),
    })
    .nullable()
    .default(null),
  note,
  occurredAt: when,
  confirmed,
})

/** A printer out of service. */
export const serviceTagSchema = z.object({
  printerId: id,
  why: text(300).min(3, 'Say why it must not run'),
  must: z.array(text(300).min(3, 'Say what must be proved')).max(30).default([]),
  note,
  occurredAt: when,
})

/** A note to the next shift. */
export const shiftNoteSchema = z.object({
  printerId: id,
  says: text(1000).min(3, 'Say what the next shift must know'),
  note,
  occurredAt: when,
})

/** A part that cools on its printer; how long and how is worked out by the server. */
export const coolDownSchema = z.object({
  printerId: id,
  materialId: id,
  name: name(120),
  thicknessMm: between(...THICKNESS_MM, 'mm'),
  bedC: between(...BED_C, '°C'),
  note,
  occurredAt: when,
})
