/** What is wrong with a print: cases opened, what is found of them, and what it was. */
import { z } from 'zod'
import { CAUSES, KNOWN_BY, resultsOf, SIGN_STATES, SIGNS, TESTS, type Sign, type TestName } from '#core/diagnosis'
import { confirmed, id, note, text, when } from './fields'
import { cropBase64 } from './pictures'

const sign = z.enum(Object.keys(SIGNS) as [Sign, ...Sign[]], { error: 'Choose one of the signs' })
const several = z
  .array(sign)
  .max(Object.keys(SIGNS).length)
  .refine(list => new Set(list).size === list.length, 'The same one stands twice')

export const caseSchema = z
  .object({
    headId: id,
    /** The run that shows it; null: one that is not logged. */
    runId: id.nullable().default(null),
    /** Of a run that is not logged; null: what is loaded there. */
    spoolId: id.nullable().default(null),
    seen: several.min(1, 'Say what the print shows: one sign at least'),
    /** Looked for, and not there. */
    not: several.default([]),
    picture: cropBase64.nullable().default(null),
    /** The closed case whose cause was put right, where it still shows. */
    afterId: id.nullable().default(null),
    note,
    occurredAt: when,
  })
  .superRefine((c, ctx) => {
    const both = c.seen.find(s => c.not.includes(s))
    if (both !== undefined)
      ctx.addIssue({ code: 'custom', path: ['not'], message: `“${both}” cannot be there and not there` })
  })
export type CaseEntry = z.input<typeof caseSchema>

export const findingSchema = z
  .object({
    caseId: id,
    kind: z.enum(['sign', 'test']),
    key: z.string().max(80),
    state: z.string().max(80),
    note,
    occurredAt: when,
  })
  .superRefine((f, ctx) => {
    const say = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message })
    if (f.kind === 'sign' && !Object.hasOwn(SIGNS, f.key)) say('key', 'Choose one of the signs')
    else if (f.kind === 'test' && !Object.hasOwn(TESTS, f.key)) say('key', 'Choose one of the tests')
    else {
      const states: readonly string[] = f.kind === 'sign' ? SIGN_STATES : resultsOf(TESTS[f.key as TestName])
      if (!states.includes(f.state)) say('state', `Choose one of: ${states.join('; ')}`)
    }
  })
export type FindingEntry = z.input<typeof findingSchema>

export const closingSchema = z.object({
  caseId: id,
  cause: z.enum(CAUSES, { error: 'Choose what it was' }),
  known: z.enum(KNOWN_BY, { error: 'Say how that is known' }),
  how: text(300).min(3, 'Say in a few words how that is known'),
  note,
  occurredAt: when,
  confirmed,
})
export type ClosingEntry = z.input<typeof closingSchema>
