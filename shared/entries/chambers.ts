/** Surveys of chambers with probes. */
import { z } from 'zod'
import {
  CHAMBER_C,
  GAP_MM,
  MOST_PROBES,
  MOST_READINGS,
  POSITION_MM,
  PROBE_UC,
  SIZE_MM,
  SURVEY_BED_C,
  SURVEY_CHAMBER_C,
  type ChamberSize,
  type Survey,
  type SurveyState,
} from '#core/chamber'
import { AIR_PLACES, OPENINGS } from '#core/limits'
import { between, confirmed, id, maybe, name, note, when } from './fields'

export const sizeFields = z.object({
  widthMm: between(...SIZE_MM, 'mm'),
  depthMm: between(...SIZE_MM, 'mm'),
  heightMm: between(...SIZE_MM, 'mm'),
}) satisfies z.ZodType<ChamberSize>

const reads = z.array(maybe(...CHAMBER_C, '°C')).max(MOST_READINGS, `At most ${MOST_READINGS} readings`)
const position = between(...POSITION_MM, 'mm')

export const probeFields = z.object({
  name: name(30),
  place: z.enum(AIR_PLACES, { error: 'Choose where the probe is' }),
  xMm: position,
  yMm: position,
  zMm: position,
  readC: reads,
})
export const stateFields = z.object({
  opening: z.enum(OPENINGS, { error: 'Say how the lid is' }),
  fan: z.boolean().nullable().default(null),
  gapMm: between(...GAP_MM, 'mm').default(0),
}) satisfies z.ZodType<SurveyState>

/** What was read, as it was read. */
export const surveyFields = z.object({
  timesS: z.array(z.number().min(0).max(1e7)).min(1, 'Enter at least one reading').max(MOST_READINGS),
  roomC: reads,
  probes: z.array(probeFields).min(1, 'Put at least one probe').max(MOST_PROBES, `At most ${MOST_PROBES} probes`),
  bedC: between(...SURVEY_BED_C, '°C'),
  chamberSetC: maybe(...SURVEY_CHAMBER_C, '°C').default(null),
  shielded: z.boolean(),
  probeUC: between(...PROBE_UC, '°C'),
}) satisfies z.ZodType<Omit<Survey, 'tauS'>>

export const surveySchema = surveyFields.extend({
  printerId: id,
  state: stateFields,
  size: sizeFields,
  note,
  occurredAt: when,
  confirmed,
})
