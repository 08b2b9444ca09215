/** Runs and jobs. */
import { SYMPTOMS } from '../choices'
import { z } from 'zod'
import type { FullScan } from '#core/gcode'
import { id, maybe, number, range80, struckBy, text, time } from './parts'

export const runLine = z.object({
  id,
  name: text,
  printer: text,
  endedAt: time,
  hours: maybe(number),
  outcome: z.enum(['finished', 'failed']),
  symptoms: z.array(z.enum(SYMPTOMS)),
  /** Sheet and adhesive; null where nobody said. */
  surface: maybe(text),
  enteredAs: text,
  person: text,
  note: text,
  stoppedKind: maybe(text),
  stoppedValue: maybe(number),
  tools: z.array(
    z.object({
      tool: id,
      nozzle: text,
      spool: maybe(text),
      material: text,
      extrudedG: number,
      fibreG: number,
      setC: maybe(number),
    }),
  ),
  struck: struckBy,
})
export type RunLine = z.output<typeof runLine>
/** Runs, newest first; `next` is the cursor of the page after, null at the end. */
export const runPage = z.object({ runs: z.array(runLine), next: maybe(text) })

/** What a save did, in numbers; the app says it in words. */
export const runEffect = z.object({
  runId: id,
  nozzles: z.array(
    z.object({
      tag: text,
      fibreG: number,
      extrudedG: number,
      leftFibreKg: maybe(range80),
      leftMaterial: maybe(text),
      pastChance: number,
    }),
  ),
})
export type RunEffect = z.output<typeof runEffect>

/** A scan is the reader's own answer, kept as it was made; older ones lack what the reader learned since. */
const scan = z.custom<FullScan>(v => typeof v === 'object' && v !== null && Array.isArray((v as FullScan).tools))
export const jobLine = z.object({ id, name: text, recordedAt: time })
export type JobLine = z.output<typeof jobLine>
export const jobPage = z.object({ id, name: text, contentSha256: text, sizeBytes: number, scan, recordedAt: time })
export type JobPage = z.output<typeof jobPage>
export const jobStored = z.object({ id, knownSince: maybe(time) })
