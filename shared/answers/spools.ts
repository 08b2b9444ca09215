/** Spools: what is left on each, how wet it is, and one spool's page. */
import { SPOOL_KINDS } from '../choices'
import { z } from 'zod'
import { DRYER_KINDS, PLACES_OF_SPOOL, type Filament, type FittedFactor, type Stay } from '#core/drying'
import { id, maybe, number, struckFor, text, time } from './parts'

export const spoolRow = z.object({
  id,
  tag: text,
  materialId: id,
  material: text,
  diameterMm: number,
  netG: number,
  tareG: maybe(number),
  hub: text,
  /** As entered of the spool itself. */
  ownDensityGCm3: maybe(number),
  ownFillerFraction: maybe(number),
  /** What counts: the spool's own, else its material's. */
  densityGCm3: maybe(number),
  fillerFraction: number,
  note: text,
  version: id,
  leftG: number,
  /** What that rests on. */
  leftBy: z.enum(['weighing', 'difference of weighings', 'label']),
  /** Still offered and shown; what has ended stays in every total. */
  inUse: z.boolean(),
  place: z.enum(SPOOL_KINDS).nullable(),
  lastUsedAt: maybe(time),
})
export type SpoolRow = z.output<typeof spoolRow>

/** The shop's air: the room's, and the dry boxes'. */
export const shopAir = z.object({ roomC: number, roomRh: number, dryBoxRh: number, dryBoxReadAt: maybe(time) })
export type ShopAir = z.output<typeof shopAir>

export const woundFactor = z.object({
  factor: number,
  lnSd: number,
  weighings: id,
  heatUpH: number,
  low80: number,
  high80: number,
}) satisfies z.ZodType<FittedFactor>

export const dryingLine = z.object({
  id,
  dryerId: id,
  dryer: text,
  kind: z.enum(DRYER_KINDS),
  timeOutH: maybe(number),
  setC: number,
  actualC: maybe(number),
  plannedH: number,
  targetWt: maybe(number),
  from: time,
  to: maybe(time),
  beforeG: maybe(number),
  afterG: maybe(number),
  note: text,
  person: text,
})
export type DryingLine = z.output<typeof dryingLine>

const dryTime = z.object({ strandH: number, woundH: number })
/** A spool as it stands. */
export const spoolState = z.object({
  id,
  tag: text,
  materialId: id,
  material: text,
  hub: text,
  place: z.enum(PLACES_OF_SPOOL),
  /** What ended it: finished, thrown away; null while it is in use. */
  ended: z.enum(SPOOL_KINDS).nullable(),
  /** Since when it stands there; the printer it is loaded on. */
  since: maybe(time),
  printer: maybe(text),
  /** What in its log cannot be worked with, in words; its water is not known then, and every other spool's still is. */
  problem: maybe(text),
  /** Null when it is not known how its filament takes up water, or its log cannot be worked with. */
  water: z
    .object({
      strand: number,
      /** If it came as wet as the room, and if it came dry: nobody knows until it was dried. */
      wound: number,
      low: number,
      clean: number,
      usual: number,
      soaked: number,
      dried: z.boolean(),
      /** What may be said of it, and how it is said where it is too wet. */
      dryness: z.enum(['clean', 'usual', 'wet', 'unknown']),
      verdict: z.enum(['stop', 'look']),
      /** Until it is past what usually prints, and past clean. */
      inRoom: dryTime,
      inBox: dryTime,
      cleanInRoom: dryTime,
      cleanInBox: dryTime,
      /** A box below these keeps it so, % relative humidity; 100 when any air does. */
      boxUsualRh: number,
      boxCleanRh: number,
    })
    .nullable(),
  /** Its filament takes up no water: it needs no drying. */
  takesNoWater: z.boolean(),
  drying: dryingLine.nullable(),
})
export type SpoolState = z.output<typeof spoolState>

const filament = z.object({
  diameterMm: number,
  fillerFraction: number,
  waterAt50: number,
  d80: number,
  eaJMol: number,
  lnSd: number,
  clean: number,
  usual: number,
}) satisfies z.ZodType<Filament>
const stay = z.object({
  from: number,
  to: number,
  place: z.enum(PLACES_OF_SPOOL),
  airC: number,
  rh: number,
  rhLow: number.optional(),
  fill: number,
}) satisfies z.ZodType<Stay>

/** What a screen needs to plan and draw one spool: the browser carries it through with the same core. Times in ms. */
export const spoolHistory = z.object({
  filament: filament.nullable(),
  stays: z.array(stay),
  start: number,
  soakedRh: number,
  fill: number,
})
export type SpoolHistory = z.output<typeof spoolHistory>

export const spoolPage = z.object({
  state: spoolState,
  history: spoolHistory,
  dryings: z.array(dryingLine),
  leftG: number,
  tareG: maybe(number),
  polymer: text,
  filled: z.boolean(),
  limits: z.object({ dryHighestC: maybe(number), glassC: maybe(number), meltC: maybe(number) }),
  events: z.array(
    z.object({
      id,
      kind: z.enum(SPOOL_KINDS),
      at: time,
      grossG: maybe(number),
      roomC: maybe(number),
      rh: maybe(number),
      atC: maybe(number),
      hours: maybe(number),
      note: text,
      person: text,
      struck: struckFor,
    }),
  ),
  struckDryings: z.array(z.object({ id, from: time, dryer: text, reason: text })),
  air: shopAir,
  wound: woundFactor,
  at: time,
})
export type SpoolPage = z.output<typeof spoolPage>
