/** Nozzles: the list, one nozzle's page, and what a gauge did. */
import { z } from 'zod'
import {
  NOZZLE_MATERIALS,
  type BoreHistory,
  type LawVerdict,
  type NozzleForecast,
  type NozzleInput,
  type Range,
} from '#core/wear'
import { storedPicture } from '../entries/pictures'
import { basis, id, maybe, number, range80, text, time } from './parts'
import { nozzleFlow } from './flow'
import { scatter } from './studies'

const material = z.enum(NOZZLE_MATERIALS)
const law = z.enum(['sliding', 'linear'])

export const nozzleType = z.object({
  id,
  name: text,
  material,
  nominalBoreMm: number,
  lengthMm: number,
  coneDeg: number,
  tipFlatMm: number,
  landMm: number,
  inletMm: number,
  insertMm: maybe(number),
  boreGrowthLimit: maybe(number),
  tipLossLimitMm: maybe(number),
  massLimitKg: maybe(number),
  torqueNm: maybe(number),
  basis,
  note: text,
  version: id,
})

export type NozzleTypeRow = z.output<typeof nozzleType>

export const nozzleLine = z.object({
  id,
  tag: text,
  typeName: text,
  material,
  nominalBoreMm: number,
  place: maybe(text),
  /** The hotend on the shelf that it is in. */
  hotend: maybe(text),
  headId: maybe(id),
  printerId: maybe(id),
  retired: z.boolean(),
  retiredReason: maybe(text),
  fibreG: number,
  leftKg: maybe(number),
  leftLowKg: maybe(number),
  leftHighKg: maybe(number),
  pastChance: number,
  nextGaugeKg: maybe(number),
  /** Fibre of the last job on the printer it sits on, g. */
  jobFibreG: maybe(number),
  lastMaterial: maybe(text),
  lastGaugedAt: maybe(time),
  stale: z.boolean(),
})
export type NozzleLine = z.output<typeof nozzleLine>

const range = z.object({
  median: number,
  low80: number,
  high80: number,
  low95: number,
  high95: number,
}) satisfies z.ZodType<Range>

const observation = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('pins'),
    wearKg: number,
    goMm: maybe(number),
    noGoMm: maybe(number),
    uMm: number,
    goPin: maybe(text).optional(),
    noGoPin: maybe(text).optional(),
    uRandomMm: number.optional(),
  }),
  z.object({ kind: z.literal('value'), wearKg: number, valueMm: number, uMm: number }),
  z.object({
    kind: z.literal('picture'),
    wearKg: number,
    valueMm: number,
    uMm: number,
    uSharedMm: number,
    setup: text,
  }),
])
const bore = z.object({
  nominalMm: number,
  wasUsed: z.boolean(),
  observations: z.array(observation).readonly(),
}) satisfies z.ZodType<BoreHistory>

const input = z.object({
  material,
  law,
  bore,
  tip: z.object({
    tip0: z.object({ meanMm: number, uMm: number }),
    observations: z.array(z.object({ wearKg: number, tipMm: number, uMm: number })).readonly(),
  }),
  rules: z.object({ boreLimitMm: maybe(number), tipLossLimitMm: maybe(number), massLimitKg: maybe(number) }),
  wearKg: number,
  prior: z.object({ meanLn: number, sd: number }),
  acceptedRisk: number,
}) satisfies z.ZodType<NozzleInput>

export const nozzleForecast = z.object({
  bore: range,
  tipLoss: range,
  kappa: range,
  leftKg: range,
  pastChance: number,
  nextGaugeKg: number,
  firstRule: z.enum(['bore', 'tip', 'mass']).nullable(),
  needsFirstGauge: z.boolean(),
}) satisfies z.ZodType<NozzleForecast>

const lawVerdict = z.union([
  z.object({ preferred: law, bayesFactor: number }),
  z.object({
    preferred: z.null(),
    reason: z.enum(['too few gauges', 'the gauges cannot tell']),
    bayesFactor: maybe(number),
  }),
]) satisfies z.ZodType<LawVerdict>

export const recordLine = z.object({
  kind: z.enum(['run', 'gauge', 'fitting']),
  id,
  at: time,
  recordedAt: time,
  person: text,
  title: text,
  detail: text,
  result: text,
  fibreG: number,
  /** It can be entered again with what is right. */
  again: z.boolean(),
  struck: z.object({ reason: text, person: text, at: time }).nullable(),
})
export type RecordLine = z.output<typeof recordLine>

export const nozzlePage = z.object({
  nozzle: z.object({ id, tag: text, law, wasUsed: z.boolean(), note: text, version: id }),
  type: nozzleType,
  place: z.object({ headId: id, head: text, printer: text, printerId: id }).nullable(),
  /** The hotend on the shelf that it is in. */
  hotend: maybe(text),
  retired: maybe(text),
  input,
  forecast: nozzleForecast,
  sisters: id,
  /** The stored forecast is being worked out anew; the one shown was made for this answer. */
  stale: z.boolean(),
  laws: lawVerdict,
  fibreG: number,
  extrudedG: number,
  lastFilled: z.object({ abrasivity: number, material: text }).nullable(),
  lastRun: z.object({ wearKg: number, fibreG: number, name: text, material: text }).nullable(),
  gaugePoints: z.array(
    z.object({
      id,
      kind: z.enum(['receipt', 'service']),
      wearKg: number,
      goMm: maybe(number),
      noGoMm: maybe(number),
      valueMm: maybe(number),
      uMm: maybe(number),
      tipMm: maybe(number),
      shape: z.array(text),
      /** Read from a picture: by which set-up, the hash of its crop, and what it showed. */
      setup: maybe(text),
      blob: maybe(text),
      picture: maybe(storedPicture),
      at: time,
      outweighed: z.boolean(),
    }),
  ),
  /** Random parts that gauge studies have set, mm. */
  /** What it sustains, by its benches. */
  flow: z.array(nozzleFlow),
  scatter,
  /** How much wider the pictures of each set-up show it than its bore is, where that lasts, mm. */
  wider: z.array(z.object({ setup: text, meanMm: number, uMm: number })),
  record: z.array(recordLine),
})
export type NozzlePage = z.output<typeof nozzlePage>

/** What a gauge did, in numbers; the app says it in words. */
export const gaugeEffect = z.object({
  gaugeId: id,
  tag: text,
  boreMm: range80,
  leftFibreKg: maybe(range80),
  leftMaterial: maybe(text),
  pastChance: number,
  nextGaugeFibreKg: maybe(number),
  /** The other gauges outweigh it: it counts as misread. */
  outweighed: z.boolean(),
})
export type GaugeEffect = z.output<typeof gaugeEffect>
