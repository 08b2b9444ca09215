/** The doors of the API: who acts, what may come in, and how refusals go out (problem+json). */
import { createError, defineEventHandler, getCookie, getHeader, getRequestPath, readRawBody, setResponseHeader, setResponseStatus, type EventHandlerRequest, type H3Event } from 'h3'
import type { z } from 'zod'
import type { Problem } from '../../shared/problem'
import type { Connection, Database } from '../db/client'
import { once } from '../records/answers'
import { Refusal } from '../records/refusal'
import { listPeople } from '../records/stores'
import { database } from './database'

/** Who acts: the person chosen in the header. Accounts and roles can come here without touching a route. */
export async function actor(event: H3Event, db: Connection): Promise<{ id: number, name: string, role: string }> {
  const people = await listPeople(db)
  const asked = Number(getCookie(event, 'iron-nozzle-person'))
  const person = people.find(p => p.id === asked) ?? people[0]
  if (!person) throw new Refusal({ type: 'about:blank', status: 409, title: 'There is no person yet who could act' })
  return person
}

export function problemOf(error: unknown): Problem {
  if (error instanceof Refusal) return error.problem
  const code = (error as { code?: string, cause?: { code?: string } })?.code ?? (error as { cause?: { code?: string } })?.cause?.code
  if (typeof code === 'string' && (/^(ECONN|EPIPE|ENOTFOUND|CONNECT|CONNECTION_|57P|08)/.test(code) || code === 'ETIMEDOUT'))
    return { type: 'urn:iron-nozzle:database', status: 503, title: 'The database does not answer; nothing was stored. What you typed is kept, try again shortly' }
  if (code === '23514' || code === '22003') return { type: 'about:blank', status: 422, title: 'A value is outside what can be stored', detail: String((error as { cause?: { constraint_name?: string } }).cause?.constraint_name ?? '') }
  if (code === '23505') return { type: 'urn:iron-nozzle:field', status: 422, title: 'This name is taken', errors: [{ field: 'name', message: 'This name is taken' }] }
  if (code === '23503') return { type: 'about:blank', status: 422, title: 'It names a record that is not known' }
  return { type: 'about:blank', status: 500, title: 'This went wrong on the server; nothing was stored' }
}

async function guarded<T>(event: H3Event, work: () => Promise<T>): Promise<T | Problem> {
  try {
    return await work()
  } catch (error) {
    const problem = problemOf(error)
    if (problem.status >= 500 && problem.type !== 'urn:iron-nozzle:database') console.error(error)
    setResponseStatus(event, problem.status)
    setResponseHeader(event, 'content-type', 'application/problem+json')
    return problem
  }
}

/** A question to the records. */
export function answering<T>(read: (db: Database, event: H3Event<EventHandlerRequest>) => Promise<T>) {
  return defineEventHandler(event => guarded(event, async () => {
    const started = performance.now()
    const answer = await read(await database(), event)
    setResponseHeader(event, 'server-timing', `read;dur=${(performance.now() - started).toFixed(1)}`)
    setResponseHeader(event, 'cache-control', 'no-store')
    return answer
  }))
}

export async function parsed<S extends z.ZodType>(event: H3Event, schema: S): Promise<{ body: z.output<S>, raw: unknown }> {
  const text = await readRawBody(event, 'utf8')
  if (text && text.length > 4_000_000) throw createError({ statusCode: 413 })
  let raw: unknown
  try { raw = JSON.parse(text ?? '') } catch { throw new Refusal({ type: 'about:blank', status: 400, title: 'The body is not JSON' }) }
  const result = schema.safeParse(raw)
  if (result.success) return { body: result.data, raw }
  const errors = result.error.issues.map(i => ({ field: i.path.join('.'), message: i.message }))
  throw new Refusal({ type: 'urn:iron-nozzle:field', status: 422, title: errors[0]!.message, errors })
}

/** An entry that is stored exactly once under its Idempotency-Key. */
export function entry<S extends z.ZodType, T>(schema: S, save: (tx: Connection, body: z.output<S>, personId: number, event: H3Event) => Promise<T>) {
  return defineEventHandler(event => guarded(event, async () => {
    const key = getHeader(event, 'idempotency-key') ?? ''
    if (!/^[\w-]{8,100}$/.test(key)) throw new Refusal({ type: 'about:blank', status: 400, title: 'Every entry needs an Idempotency-Key of 8 to 100 letters, digits and dashes' })
    const { body, raw } = await parsed(event, schema)
    const db = await database()
    const person = await actor(event, db)
    const { answer, repeated } = await once(db, { key, route: getRequestPath(event), body: raw, personId: person.id }, tx => save(tx, body, person.id, event))
    setResponseHeader(event, 'idempotency-replayed', String(repeated))
    setResponseStatus(event, 201)
    return answer
  }))
}
