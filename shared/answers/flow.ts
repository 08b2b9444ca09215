/** Flow benches: what one may do on a head, how far it got, and what it tells. */
import { z } from 'zod'
import type { BenchLimits, BenchResult, Compared, Level, LimitFound, Move, Sustained } from '#core/flow'
import { id, maybe, number, struckBy, text, time } from './parts'
import { correction } from './printers'

const sustained = z.object({
  temperatureC: number,
  reach: z.enum(['between', 'at least the highest tested', 'under the lowest tested']),
  flowMm3S: number,
  low80: maybe(number),
  high80: maybe(number),
}) satisfies z.ZodType<Sustained>

const result = z.object({
  cells: z.array(
    z.object({
      temperatureC: number,
      flowMm3S: number,
      blobs: number,
      share: number,
      u: number,
      fit: number,
      relative: number,
      uRelative: number,
    }),
  ),
  level: z.object({ share: number, u: number }),
  against: z.enum(['slowest', 'nominal']),
  plateau: z.boolean(),
  sustained: z.array(sustained),
}) satisfies z.ZodType<BenchResult>

const level = z.object({
  off: number,
  left: number,
  asks: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('fine') }),
    z.object({ kind: z.literal('no level') }),
    z.object({ kind: z.literal('calliper') }),
    z.object({ kind: z.literal('diameter'), mm: number }),
    z.object({ kind: z.literal('mark') }),
    z.object({ kind: z.literal('steps'), factor: number }),
    z.object({ kind: z.literal('density'), gCm3: number }),
  ]),
}) satisfies z.ZodType<Level>

const compared = z.object({
  difference: number,
  u: number,
  cells: number,
  verdict: z.enum(['better', 'worse', 'no difference']),
  shows: number,
  needs: maybe(z.object({ metres: number, repeats: number })),
}) satisfies z.ZodType<Compared>

const limit = z.object({
  limit: z.enum([
    'nothing falls short',
    'melting',
    'grip',
    'grip or this nozzle',
    'this nozzle',
    'not this nozzle',
    'cannot tell',
  ]),
  move: maybe(
    z.object({
      coolC: number,
      hotC: number,
      verdict: z.enum(['moved', 'stayed', 'cannot tell']),
      gain: number,
      u: number,
    }) satisfies z.ZodType<Move>,
  ),
  against: z.array(z.object({ nozzle: text, compared: maybe(compared) })),
  next: maybe(z.enum(['hotter', 'another nozzle', 'faster', 'repeat'])),
}) satisfies z.ZodType<LimitFound>

/** What a bench on a head with a spool rests on. */
export const benchPlan = z.object({
  headId: id,
  spoolId: id,
  place: text,
  nozzle: maybe(z.object({ id, tag: text, typeName: text })),
  /** Why nothing is to be started on this printer; null when something may. */
  notReady: maybe(text),
  limits: z.object({
    ceilingSetC: maybe(number),
    sensor: correction,
    material: text,
    shortMaxC: maybe(number),
    lowestFlowC: maybe(number),
  }) satisfies z.ZodType<BenchLimits>,
  hottestC: maybe(number),
  filament: z.object({ diameterMm: number, densityGCm3: maybe(number) }),
  /** Highest flow that was printed with this material on this head, mm³/s. */
  highestMm3S: maybe(number),
  /** Setpoint to begin from, °C; null where nothing tells. */
  usualC: maybe(number),
  cautions: z.array(z.object({ key: text, hazard: text, what: text })),
})
export type BenchPlanFacts = z.output<typeof benchPlan>

/** A bench in the list. */
export const benchRow = z.object({
  id,
  nozzle: text,
  place: text,
  headId: id,
  materialId: id,
  material: text,
  spool: text,
  blobs: number,
  weighed: number,
  ended: maybe(z.enum(['done', 'stopped early'])),
  sustained: z.array(sustained),
  at: time,
  person: text,
  struck: struckBy,
})
export type BenchRow = z.output<typeof benchRow>

const blob = z.object({
  id,
  grossG: number,
  panG: number,
  /** Net, with its standard uncertainty. */
  massG: number,
  uG: number,
  at: time,
  person: text,
  note: text,
})
const measure = z.object({
  id,
  callipersMm: maybe(z.array(number)),
  mark: maybe(z.object({ toldMm: number, fedMm: number })),
  at: time,
  person: text,
  note: text,
  struck: struckBy,
})

export const benchPage = benchRow.extend({
  nozzleId: id,
  spoolId: id,
  lengthMm: number,
  diameterMm: number,
  densityGCm3: number,
  balanceStepG: number,
  /** What a blob should weigh by all that is measured, g. */
  nominalG: number,
  accepted: number,
  stand: z.object({ xMm: number, yMm: number, zMm: number }),
  tool: maybe(number),
  note: text,
  /** In the order of the work, with what stands there. */
  lines: z.array(z.object({ temperatureC: number, flowMm3S: number, round: number, blob: maybe(blob) })),
  struckBlobs: z.array(blob.extend({ line: number, struck: struckBy })),
  measures: z.array(measure),
  /** Scatter between blobs of one cell beyond the balance, as a share, and the repeats that it rests on. */
  scatter: number,
  degrees: number,
  result: maybe(result),
  level: maybe(level),
  limit: maybe(limit),
  /** Other nozzles on this head with this lot, and this nozzle at its first bench here. */
  beside: z.array(z.object({ id, nozzle: text, at: time, compared: maybe(compared) })),
  dropped: maybe(z.object({ id, at: time, compared: compared.extend({ dropped: z.boolean() }) })),
  /** The run that it was logged as. */
  run: maybe(z.object({ id, grams: number, struck: z.boolean() })),
})
export type BenchPage = z.output<typeof benchPage>

/** What a nozzle sustains, as its benches tell: by head and material, the latest. */
export const nozzleFlow = z.object({
  benchId: id,
  headId: id,
  place: text,
  materialId: id,
  material: text,
  at: time,
  accepted: number,
  sustained: z.array(sustained),
  /** Less than at its own first bench with this material on this head: something stands in its way since. */
  dropped: maybe(z.object({ firstAt: time, difference: number, u: number })),
})
export type NozzleFlow = z.output<typeof nozzleFlow>

/** What a weighed blob did. */
export const blobEffect = z.object({
  id,
  massG: number,
  share: number,
  left: number,
})
export type BlobEffect = z.output<typeof blobEffect>
