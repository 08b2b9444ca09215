/** What is under way before a run: dryers, soaks, warm-ups, changeovers, anneals, checks. */
import { z } from 'zod'
import { PART_SIZES } from '#core/chamber'
import { DRYER_KINDS } from '#core/drying'
import { AIR_PLACES, OPENINGS } from '#core/limits'
import { CHECK_KEYS, CHECK_PLACES, type Answer, type CheckLine } from '#core/precheck'
import { basis, id, maybe, number, struckFor, text, time } from './parts'
import { jobPage } from './runs'
import { shopAir, spoolState, woundFactor } from './spools'

export const dryerRow = z.object({
  id,
  name: text,
  kind: z.enum(DRYER_KINDS),
  ceilingC: number,
  timeOutH: maybe(number),
  printerId: maybe(id),
  basis,
  note: text,
  withdrawn: z.boolean(),
  version: id,
})
export type DryerRow = z.output<typeof dryerRow>

/** A line of the shop's own in the check before a run. */
export const checkLineRow = z.object({
  id,
  says: text,
  printerId: maybe(id),
  materialId: maybe(id),
  withdrawn: z.boolean(),
  version: id,
})
export type CheckLineRow = z.output<typeof checkLineRow>

export const soakLine = z.object({
  id,
  printerId: id,
  printer: text,
  material: maybe(text),
  targetC: maybe(number),
  bedC: number,
  part: z.enum(PART_SIZES),
  minutes: number,
  basis: z.enum(['warm-up record', 'practice']),
  from: time,
  to: maybe(time),
  outcome: z.enum(['done', 'stopped early']).nullable(),
  person: text,
  readings: id,
})
export type SoakLine = z.output<typeof soakLine>

export const warmUpFit = z.object({
  startC: number,
  finalC: number,
  tauS: number,
  delayS: number,
  rmsC: number,
  used: id,
  dips: z.array(z.object({ fromS: number, toS: number })),
  reachedShare: number,
})
export const warmUpLine = warmUpFit.extend({
  id,
  printerId: id,
  /** As it was typed, and which place that is; null where it does not tell. */
  placeText: text,
  place: z.enum(AIR_PLACES).nullable(),
  opening: z.enum(OPENINGS),
  source: z.enum(['live readings', 'probe file']),
  bedC: number,
  chamberSetC: maybe(number),
  roomC: number,
  at: time,
  person: text,
  note: text,
  readings: z.array(z.object({ s: number, c: number })),
  struck: struckFor,
})
export type WarmUpLine = z.output<typeof warmUpLine>

export const changeoverLine = z.object({
  id,
  nozzle: text,
  printer: text,
  head: text,
  from: maybe(text),
  to: maybe(text),
  atC: number,
  volumeMm3: number,
  clean: z.boolean(),
  at: time,
  person: text,
  note: text,
  struck: struckFor,
})
export type ChangeoverLine = z.output<typeof changeoverLine>

/** Filaments that may still stand in a fitted nozzle, and the last of them. */
export const through = z.object({ nozzleId: id, materialIds: z.array(id), lastId: maybe(id) })
export type Through = z.output<typeof through>

const coolDownLine = z.object({
  id,
  printerId: id,
  printer: text,
  material: text,
  name: text,
  thicknessMm: number,
  bedC: number,
  surface: maybe(text),
  minutes: number,
  takeOff: z.enum(['warm', 'cold']),
  takeOffC: number,
  from: time,
  to: maybe(time),
  outcome: maybe(z.enum(['done', 'stopped early'])),
  person: text,
})
export type CoolDownLine = z.output<typeof coolDownLine>

export const annealLine = z.object({
  id,
  name: text,
  material: text,
  dryer: text,
  atC: number,
  holdH: number,
  rampCPerH: number,
  thicknessMm: number,
  sandMm: maybe(number),
  totalH: number,
  from: time,
  to: maybe(time),
  outcome: z.enum(['done', 'stopped early']).nullable(),
  person: text,
  note: text,
  struck: struckFor,
})
export type AnnealLine = z.output<typeof annealLine>

export const checkOfRun = z.object({
  id,
  name: text,
  printer: text,
  spool: maybe(text),
  may: z.boolean(),
  at: time,
  person: text,
  run: maybe(id),
})
export type CheckOfRun = z.output<typeof checkOfRun>

export const prepare = z.object({
  spools: z.array(spoolState),
  dryers: z.array(dryerRow),
  checkLines: z.array(checkLineRow),
  air: shopAir,
  wound: woundFactor,
  soaks: z.array(soakLine),
  anneals: z.array(annealLine),
  changeovers: z.array(changeoverLine),
  through: z.array(through),
  checks: z.array(checkOfRun),
  coolDowns: z.array(coolDownLine),
  at: time,
})
export type Prepare = z.output<typeof prepare>

const checkLine = z.object({
  key: z.enum(CHECK_KEYS),
  status: z.enum(['ok', 'look', 'stop', 'unknown', 'confirm', 'note']),
  says: text,
  fix: text,
  // checks stored before lines led anywhere have neither
  where: z.enum(CHECK_PLACES).nullable().default(null),
  waivable: z.boolean(),
  reasons: z.array(text).default([]),
}) satisfies z.ZodType<CheckLine>
const answer = z.object({
  index: id,
  how: z.enum(['looked', 'waived', 'fixed']),
  reason: text,
}) satisfies z.ZodType<Answer>

/** A check worked out; `seen` goes back with the answers, so that no answer is given to lines that changed. */
export const precheckAnswer = z.object({
  lines: z.array(checkLine),
  /** Hazards of printing this job here. */
  cautions: z.array(z.object({ key: text, hazard: text, what: text })),
  seen: z.array(text),
  material: text,
  hours: maybe(number),
  massG: maybe(number),
})
export type PrecheckAnswer = z.output<typeof precheckAnswer>

export const storedCheck = z.object({
  id,
  printerId: id,
  headId: id,
  spoolId: maybe(id),
  materialId: id,
  name: text,
  contentSha256: maybe(text),
  hours: maybe(number),
  printsFrom: z.enum(['room', 'dry box', 'dryer']),
  tool: number,
  setC: z.object({ nozzleC: maybe(number), bedC: maybe(number), chamberC: maybe(number) }).nullable(),
  lines: z.array(checkLine),
  answers: z.array(answer),
  may: z.boolean(),
  note: text,
  occurredAt: time,
  printer: text,
  head: text,
  spool: maybe(text),
  material: text,
  person: text,
  run: maybe(id),
  /** The job goes along when the shop has it, so that the run can be logged from the check. */
  job: jobPage.nullable(),
})
export type StoredCheck = z.output<typeof storedCheck>
