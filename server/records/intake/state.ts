/** What a line came to: what it adds, or why it is refused, or what it asks. */
import type { TableName } from '#core/intake'
import { InputError } from '#core/numeric'
import type { IntakeLine } from '#shared/answers/intake'
import { Refusal } from '../entry/refusal'
import { columnOf, type Line, type Saved } from './line'

const plain = (line: Line) => ({ line: line.line, errors: [], questions: [] })

export const savedAs = (line: Line, { isHere, says }: Saved): IntakeLine => ({
  ...plain(line),
  state: isHere ? 'here' : 'new',
  says,
})

/** A refusal in the words of the table; any other error is not the line's. */
export function refusedAs(table: TableName, line: Line, error: unknown): IntakeLine {
  const as = plain(line)
  if (error instanceof InputError) {
    const message = `${String(error.given)} is not allowed: ${error.allowed}`
    return { ...as, state: 'wrong', says: message, errors: [{ field: columnOf(table, error.field), message }] }
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
  const found = (errors ?? [{ field: '', message: title }]).map(e => ({ ...e, field: columnOf(table, e.field) }))
  return { ...as, state: 'wrong', says: found.map(e => e.message).join('; '), errors: found }
}
const isSaved = (got: object): got is Saved => 'isHere' in got && 'says' in got

/** Runs the work of one line. */
export function stateOf<T extends object>(
  table: TableName,
  line: Line,
  work: () => T,
): { state: IntakeLine; got: T | null } {
  try {
    const got = work()
    return { state: savedAs(line, isSaved(got) ? got : { isHere: false, says: '' }), got }
  } catch (error) {
    return { state: refusedAs(table, line, error), got: null }
  }
}
