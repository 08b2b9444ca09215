/** Chambers of enclosed printers, and what surveys found in them. */
import { z } from 'zod'
import { GUARDS } from '#core/chamber'
import { AIR_PLACES } from '#core/limits'
import { sizeFields, stateFields, surveyFields } from '../entries/chambers'
import { planSpec } from '../entries/plans'
import { id, maybe, number, struckBy, text, time } from './parts'
import { zoneLimit } from './printers'

export const surveyLine = surveyFields.extend({
  id,
  printerId: id,
  at: time,
  person: text,
  note: text,
  state: stateFields,
  size: sizeFields,
  tauS: number,
  /** What the settings made by the sensors' checks; the settings themselves where nobody checked those sensors. */
  bedTrueC: number,
  chamberTrueC: maybe(number),
  /** "its check of 3 Nov 2026", of the sensor that the air goes by; empty where none counts. */
  correctedBy: text,
  /** The sensor that the air goes by is still the one of then. */
  sameSensor: z.boolean(),
  /** The check that counted when it was read; null where none did. */
  checkThen: maybe(text),
  /** What was changed of the stack since, so that it does not hold any more: "fans, 3 Nov 2026". */
  changed: z.array(text),
  struck: struckBy,
})
export type SurveyLine = z.output<typeof surveyLine>

export const planLine = z.object({
  id,
  printerId: id,
  name: text,
  spec: planSpec,
  note: text,
  at: time,
  person: text,
})
export type PlanLine = z.output<typeof planLine>

export const cutOutLine = z.object({
  id,
  printerId: id,
  guard: z.enum(GUARDS),
  tripped: z.boolean(),
  atC: maybe(number),
  note: text,
  at: time,
  person: text,
  struck: struckBy,
  /** The change of its heater or sensor since; null while there was none. */
  changed: maybe(text),
})
export type CutOutLine = z.output<typeof cutOutLine>

export const chamberLine = z.object({
  printerId: id,
  printer: text,
  heated: z.boolean(),
  /** Time constant of its warm-up, and in words where that comes from. */
  tauS: number,
  tauFrom: text,
  /** The latest warm-up by the bed alone with the lid shut: what its bed showed, and how fast it was. */
  byBed: maybe(z.object({ bedC: number, tauS: number, on: text })),
})
export type ChamberLine = z.output<typeof chamberLine>

export const chambers = z.object({
  chambers: z.array(chamberLine),
  /** The latest first, those struck out among them. */
  surveys: z.array(surveyLine),
  /** The newest of each name. */
  plans: z.array(planLine),
  /** The latest first, those struck out among them. */
  cutOutTests: z.array(cutOutLine),
  /** How often this shop wants each guard tested, where it says so. */
  testEvery: z.array(z.object({ printerId: id, guard: z.enum(GUARDS), days: number })),
})
export type Chambers = z.output<typeof chambers>

/** What a saved survey says of each place, and the limits of bed and chamber before and after. */
export const surveyEffect = z.object({
  id,
  by: z.enum(['bed', 'heater']),
  places: z.array(z.object({ place: z.enum(AIR_PLACES), value: number, u: number })),
  before: z.array(zoneLimit),
  after: z.array(zoneLimit),
})
