/** Gauge studies: their lists, what stands in them, and which of them counts. */
import { z } from 'zod'
import { STUDY_METHODS } from '#core/study'
import { id, maybe, number, struckBy, text, time } from './parts'

export const studyReading = z.object({
  id,
  goMm: maybe(number),
  noGoMm: maybe(number),
  valueMm: maybe(number),
  at: time,
  person: text,
  note: text,
})

export const studyLine = z.object({
  id,
  name: text,
  method: z.enum(STUDY_METHODS),
  setup: maybe(z.object({ id, name: text })),
  people: z.array(z.object({ id, name: text })),
  nozzles: z.array(z.object({ id, tag: text, nominalBoreMm: number })),
  repeats: id,
  /** In the order of the work: whose turn it is with which nozzle, and what stands there. */
  lines: z.array(z.object({ personId: id, nozzleId: id, round: number, reading: maybe(studyReading) })),
  /** Readings that were struck out. */
  struckReadings: z.array(studyReading.extend({ line: number, struck: struckBy })),
  /** Least growth that a retire rule of its nozzles allows, mm; null where none goes by the bore. */
  allowanceMm: maybe(number),
  /** Random part that gauges by its method have from it, mm; null while it sets nothing. */
  setsMm: maybe(number),
  /** It is the latest of its method that sets something: gauges go by it. */
  counts: z.boolean(),
  at: time,
  person: text,
  note: text,
  struck: struckBy,
})
export type StudyLine = z.output<typeof studyLine>

/** The line whose turn it is, of the study that was begun last. */
export const studyTurn = z.object({
  studyId: id,
  name: text,
  method: z.enum(STUDY_METHODS),
  setupId: maybe(id),
  line: number,
  lines: number,
  person: text,
  nozzleId: id,
  tag: text,
})
export type StudyTurn = z.output<typeof studyTurn>

/** Random parts that studies have set, mm: of pins, and of each set-up's pictures. */
export const scatter = z.object({
  pinsMm: maybe(number),
  setups: z.array(z.object({ setupId: id, mm: number })),
})
export type Scatter = z.output<typeof scatter>

/** What a reading of a study did. */
export const readingEffect = z.object({
  id,
  left: number,
  /** Random part of the method from now on, mm, and before; null: none set. */
  setsMm: maybe(number),
  beforeMm: maybe(number),
  /** Nozzles whose forecasts are worked out anew for it. */
  nozzles: number,
})
export type ReadingEffect = z.output<typeof readingEffect>
