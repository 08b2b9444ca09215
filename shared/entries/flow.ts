/** Flow benches: begun, weighed blob by blob, and what is measured of the filament. */
import { z } from 'zod'
import {
  ACCEPTED_RANGE,
  ACCEPTED_SHARE,
  BALANCE_STEP_G,
  BENCH_C,
  BENCH_FLOW_MM3S,
  BENCH_FLOWS,
  BENCH_REPEATS,
  BENCH_TEMPERATURES,
  BLOB_MM,
  CALLIPER_PLACES,
  GROSS_G,
  MARK_MM,
  MOST_BLOBS,
  PAN_G,
  STAND_XY_MM,
  STAND_Z_MM,
} from '#core/flow'
import { DIAMETER_MM } from '#core/materials'
import { between, confirmed, id, note, when } from './fields'

type Span = readonly [number, number]
const several = ([least, most]: Span, range: Span, unit: string, what: string) =>
  z
    .array(between(...range, unit))
    .min(least, `At least ${least} ${what}`)
    .max(most, `At most ${most} ${what}`)
    .refine(list => new Set(list).size === list.length, `The same one stands twice among the ${what}`)

export const benchSchema = z
  .object({
    headId: id,
    spoolId: id,
    temperaturesC: several(BENCH_TEMPERATURES, BENCH_C, '°C', 'temperatures'),
    flowsMm3S: several(BENCH_FLOWS, BENCH_FLOW_MM3S, 'mm³/s', 'flows'),
    repeats: between(...BENCH_REPEATS, 'blobs of each').int('Whole blobs'),
    lengthMm: between(...BLOB_MM, 'mm').default(BLOB_MM[0]),
    balanceStepG: between(...BALANCE_STEP_G, 'g'),
    accepted: between(...ACCEPTED_RANGE, '(share)').default(ACCEPTED_SHARE),
    stand: z.object({
      xMm: between(...STAND_XY_MM, 'mm'),
      yMm: between(...STAND_XY_MM, 'mm'),
      zMm: between(...STAND_Z_MM, 'mm'),
    }),
    note,
    occurredAt: when,
    confirmed,
  })
  .superRefine((b, ctx) => {
    const blobs = b.temperaturesC.length * b.flowsMm3S.length * b.repeats
    if (blobs > MOST_BLOBS)
      ctx.addIssue({ code: 'custom', path: ['repeats'], message: `That is ${blobs} blobs; at most ${MOST_BLOBS}` })
  })
export type BenchEntry = z.input<typeof benchSchema>

export const blobSchema = z
  .object({
    benchId: id,
    /** Its place in the order of the work, from 0. */
    line: between(0, MOST_BLOBS - 1, '(line)').int('A whole line'),
    grossG: between(...GROSS_G, 'g'),
    /** The empty pan as it was read last; 0 where the balance was tared. */
    panG: between(...PAN_G, 'g').default(0),
    note,
    occurredAt: when,
    confirmed,
  })
  .refine(b => b.grossG > b.panG, {
    path: ['grossG'],
    error: 'Not heavier than the empty pan: weigh it again, or read the pan anew',
  })
export type BlobEntry = z.input<typeof blobSchema>

export const filamentMeasureSchema = z
  .object({
    benchId: id,
    callipersMm: z
      .array(between(...DIAMETER_MM, 'mm'))
      .min(CALLIPER_PLACES, `At least ${CALLIPER_PLACES} places`)
      .max(10, 'At most 10 places')
      .nullable()
      .default(null),
    /** A length mark: told to feed, and what went in. */
    mark: z
      .object({ toldMm: between(...MARK_MM, 'mm'), fedMm: between(MARK_MM[0] / 2, MARK_MM[1] * 2, 'mm') })
      .nullable()
      .default(null),
    note,
    occurredAt: when,
    confirmed,
  })
  .superRefine((m, ctx) => {
    const say = (path: (string | number)[], message: string) => ctx.addIssue({ code: 'custom', path, message })
    if ((m.callipersMm === null) === (m.mark === null)) say(['callipersMm'], 'Enter the callipers, or the length mark')
    if (m.mark && (m.mark.fedMm < m.mark.toldMm / 2 || m.mark.fedMm > m.mark.toldMm * 2))
      say(['mark', 'fedMm'], 'Less than half or more than twice what was told: measure again')
  })
export type FilamentMeasureEntry = z.input<typeof filamentMeasureSchema>
