/** What an error says to who asked: refusals, questions and faults as problem+json. */
import { InputError } from '#core/numeric'
import type { Problem } from '#shared/problem'
import { Refusal } from '../records/entry/refusal'

export const SERVER_FAULT: Problem = {
  type: 'about:blank',
  status: 500,
  title: 'This went wrong on the server; nothing was stored',
}

/** The code of a database or connection error, or of the one that caused it; '' for any other. */
function codeOf(error: unknown): string {
  const { code, cause } = (error ?? {}) as { code?: unknown; cause?: { code?: unknown } }
  return String(code ?? cause?.code ?? '')
}

export function problemOf(error: unknown): Problem {
  if (error instanceof Refusal) return error.problem
  if (error instanceof InputError)
    return {
      type: 'urn:iron-nozzle:field',
      status: 422,
      title: error.message,
      errors: [{ field: error.field, message: error.message }],
    }
  const code = codeOf(error)
  if (isAway(error))
    return {
      type: 'urn:iron-nozzle:database',
      status: 503,
      title: 'The database does not answer; nothing was stored. What you typed is kept, try again shortly',
    }
  if (/^(53|40)/.test(code))
    return {
      type: 'urn:iron-nozzle:database',
      status: 503,
      title: 'The database is too busy; nothing was stored. What you typed is kept, try again shortly',
    }
  if (code === '23514' || code.startsWith('22'))
    return {
      type: 'about:blank',
      status: 422,
      title: 'A value is outside what can be stored',
      detail: String((error as { cause?: { constraint_name?: string } }).cause?.constraint_name ?? ''),
    }
  if (code === '23505')
    return {
      type: 'urn:iron-nozzle:field',
      status: 422,
      title: 'This name is taken',
      errors: [{ field: 'name', message: 'This name is taken' }],
    }
  if (code === '23503') return { type: 'about:blank', status: 422, title: 'It names a record that is not known' }
  return SERVER_FAULT
}

/** The database could not be reached, or went away in between. */
export const isAway = (error: unknown) =>
  /^(ECONN|EPIPE|ENOTFOUND|ETIMEDOUT|CONNECT|CONNECTION_|57P|08)/.test(codeOf(error))
