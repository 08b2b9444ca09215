/** Cases of what is wrong with a print: the list, how often it was right, and one case with all it rests on. */
import { z } from 'zod'
import { CAUSES, KNOWN_BY, type Answer, type Finding, type Review, type Told } from '#core/diagnosis'
import { id, maybe, number, struckBy, text, time } from './parts'

const cause = z.enum(CAUSES)
const chances = z.record(cause, number)
const answer = z.object({
  cause: maybe(cause),
  sure: z.boolean(),
  order: z.array(z.object({ cause, chance: number })),
}) satisfies z.ZodType<Answer>
const told = z.object({ kind: z.enum(['sign', 'test']), key: text, state: text, says: text }) satisfies z.ZodType<Told>

/** What was said when a case was closed, and what it rested on beside what people found. */
export const saidAtClosing = z.object({
  start: chances,
  told: z.array(told),
  answer,
  /** The likeliest before any test. */
  ledBefore: cause,
})
export type SaidAtClosing = z.output<typeof saidAtClosing>

const closing = z.object({
  id,
  cause,
  known: z.enum(KNOWN_BY),
  how: text,
  note: text,
  at: time,
  person: text,
  struck: struckBy,
})
export type CaseClosing = z.output<typeof closing>

export const caseLine = z.object({
  id,
  headId: id,
  place: text,
  nozzle: maybe(text),
  material: maybe(text),
  spool: maybe(text),
  run: maybe(z.object({ id, name: text, at: time })),
  /** What is there, as people saw it. */
  seen: z.array(text),
  /** What can be said now, or was said when it was closed; null of one that is struck out. */
  answer: maybe(answer),
  closing: maybe(closing),
  afterId: maybe(id),
  at: time,
  person: text,
  note: text,
  struck: struckBy,
})
export type CaseLine = z.output<typeof caseLine>

/** A head that a case can be of, with its last runs. */
const caseHead = z.object({
  headId: id,
  printerId: id,
  place: text,
  nozzle: maybe(text),
  runs: z.array(
    z.object({
      id,
      name: text,
      at: time,
      finished: z.boolean(),
      symptoms: z.array(text),
      nozzle: text,
      material: text,
      spool: maybe(text),
    }),
  ),
})
export type CaseHead = z.output<typeof caseHead>

const review = z.object({
  closed: number,
  proved: number,
  named: number,
  right: number,
  rightBefore: number,
}) satisfies z.ZodType<Review>
export const caseList = z.object({ cases: z.array(caseLine), review, heads: z.array(caseHead) })
export type CaseList = z.output<typeof caseList>

const finding = z.object({
  id,
  kind: z.enum(['sign', 'test']),
  key: text,
  state: text,
  note: text,
  at: time,
  person: text,
  struck: struckBy,
}) satisfies z.ZodType<Finding>
export type CaseFinding = z.output<typeof finding>

export const casePage = caseLine.extend({
  printerId: id,
  nozzleId: maybe(id),
  spoolId: maybe(id),
  materialId: maybe(id),
  picture: maybe(text),
  /** How often each cause was it, before this case was looked at. */
  start: chances,
  /** What the shop's records tell of it. */
  told: z.array(told),
  /** What people found, in the order it was entered, struck ones among them. */
  findings: z.array(finding),
  /** Causes that were put right before, by the cases that this one follows. */
  right: z.array(cause),
  /** The case that follows this one. */
  nextId: maybe(id),
  struckClosings: z.array(closing),
  /** What can hurt at each test. */
  cautions: z.record(text, z.array(z.object({ key: text, hazard: text, what: text }))),
})
export type CasePage = z.output<typeof casePage>
