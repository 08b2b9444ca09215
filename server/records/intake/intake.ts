/**
 * A table that a shop brings along, saved as a whole or not at all. Each line is saved by the functions a single entry
 * is saved by; looking first does the same and takes it back, so that what is shown is what will be.
 */
import type { z } from 'zod'
import { columnsOf } from '#core/intake'
import { InputError } from '#core/numeric'
import type { IntakeEffect, IntakeLine } from '#shared/answers/intake'
import type { intakeSchema } from '#shared/entries/intake'
import type { Connection, Database } from '../../db/client'
import { Refusal, refuseFields } from '../entry/refusal'
import { shopSettings } from '../shop/settings'
import { columnOf, type By } from './line'
import { SAVE_LINE } from './lines'

type Intake = z.output<typeof intakeSchema>

/** Thrown to take back what was only looked at. */
const takenBack = new Error('taken back')

/** What each line would do; nothing is stored. */
export async function lookAt(db: Database, intake: Intake, personId: number): Promise<{ lines: IntakeLine[] }> {
  let lines: IntakeLine[] = []
  try {
    await db.transaction(async tx => {
      lines = await eachLine(tx, intake, personId)
      throw takenBack
    })
  } catch (error) {
    if (error !== takenBack) throw error
  }
  return { lines }
}

/** Saves every line, or none: a line that asks or is wrong refuses all of them. */
export async function takeIn(tx: Connection, intake: Intake, personId: number): Promise<IntakeEffect> {
  const lines = await eachLine(tx, intake, personId)
  const open = lines.filter(l => l.state === 'wrong' || l.state === 'asks')
  if (open.length > 0)
    refuseFields(open.slice(0, 50).map(l => ({ field: `lines.${l.line}`, message: `Line ${l.line}: ${l.says}` })))
  return { added: lines.filter(l => l.state === 'new').length, here: lines.filter(l => l.state === 'here').length }
}

async function eachLine(tx: Connection, { table, lines }: Intake, personId: number): Promise<IntakeLine[]> {
  const by: By = { personId, zone: (await shopSettings(tx)).timeZone, now: new Date() }
  const out: IntakeLine[] = []
  /** Lines by what names them, for one that stands in the table twice. */
  const named = new Map<string, number>()
  const key = columnsOf(table)[0]!.key
  for (const line of lines) {
    const name = String(line.values[key] ?? '')
      .trim()
      .toLowerCase()
    const first = name === '' ? undefined : named.get(name)
    if (first === undefined) named.set(name, line.line)
    out.push(first === undefined ? await oneLine(tx, table, line, by) : twice(line.line, key, first))
  }
  return out
}

const twice = (line: number, field: string, first: number): IntakeLine => {
  const message = `The same as in line ${first}`
  return { line, state: 'wrong', says: message, errors: [{ field, message }], questions: [] }
}

async function oneLine(
  tx: Connection,
  table: Intake['table'],
  line: Intake['lines'][number],
  by: By,
): Promise<IntakeLine> {
  const as = { line: line.line, errors: [], questions: [] }
  try {
    // what a line began is taken back where it is refused, and the next one finds the shop as it was
    const { isHere, says } = await tx.transaction(inner => SAVE_LINE[table](inner, line, by))
    return { ...as, state: isHere ? 'here' : 'new', says }
  } catch (error) {
    if (error instanceof InputError) {
      const message = `${String(error.given)} is not allowed: ${error.allowed}`
      return { ...as, state: 'wrong', says: message, errors: [{ field: columnOf(error.field), message }] }
    }
    if (!(error instanceof Refusal)) throw error
    const { title, questions, errors } = error.problem
    if (questions) {
      const asked = questions.map(({ code, message, choices }) => ({
        code,
        message,
        // what changes the line first is done in the line
        ...(choices ? { choices: choices.filter(c => !c.local).map(({ code, label }) => ({ code, label })) } : {}),
      }))
      return { ...as, state: 'asks', says: title, questions: asked }
    }
    const found = (errors ?? [{ field: '', message: title }]).map(e => ({ ...e, field: columnOf(e.field) }))
    return { ...as, state: 'wrong', says: found.map(e => e.message).join('; '), errors: found }
  }
}
