/** Chambers of enclosed printers, and what surveys found in them. */
import { z } from 'zod'
import { AIR_PLACES } from '#core/limits'
import { sizeFields, stateFields, surveyFields } from '../entries/chambers'
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

export const chamberLine = z.object({
  printerId: id,
  printer: text,
  heated: z.boolean(),
  /** Time constant of its warm-up, and in words where that comes from. */
  tauS: number,
  tauFrom: text,
})
export type ChamberLine = z.output<typeof chamberLine>

export const chambers = z.object({
  chambers: z.array(chamberLine),
  /** The latest first, those struck out among them. */
  surveys: z.array(surveyLine),
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
