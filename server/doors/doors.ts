/** The doors of the API: who acts, what may come in, and how refusals go out (problem+json). */
import { setTimeout as sleep } from 'node:timers/promises'
import {
  defineEventHandler,
  getCookie,
  getHeader,
  getQuery,
  getRequestPath,
  getRouterParam,
  setResponseHeader,
  setResponseStatus,
  type EventHandlerRequest,
  type H3Event,
} from 'h3'
import type { z } from 'zod'
import { InputError } from '#core/numeric'
import {
  ASKS,
  EDIT,
  ENTRIES,
  READS,
  STREAMS,
  type AskAnswer,
  type AskBody,
  type AskPath,
  type EntryAnswer,
  type EntryBody,
  type EntryPath,
  type ReadAnswer,
  type ReadPath,
  type Who,
} from '#shared/api'
import type { EnteredKind } from '#shared/answers/again'
import type { EditableKind, EditBody } from '#shared/entries/edits'
import { idSchema } from '#shared/entries/fields'
import type { Person } from '#shared/answers/shop'
import type { Problem } from '#shared/problem'
import type { Connection, Database } from '../db/client'
import { strikeReplaced, type Replacing } from '../records/entry/again'
import { once } from '../records/entry/answers'
import { notFound, Refusal, refuseFields } from '../records/entry/refusal'
import { listPeople } from '../records/shop/people'
import { database } from '../db/database'
import { bodyOf } from './body'
import { faultId, faultLine } from './fault'
import { bodyFault, textFault } from './plain-text'
import { isAway, problemOf, SERVER_FAULT } from './problem'
import { heardBy } from './heard'
import { packable, packed, type Packable } from './packed'
import { together } from './together'

/** Who acts: the person chosen in the header. Accounts and roles can come here without touching a route. */
export async function actor(event: H3Event, db: Connection): Promise<Person> {
  const people = (await listPeople(db)).filter(p => !p.outOfUse)
  const asked = Number(getCookie(event, 'iron-nozzle-person'))
  const person = people.find(p => p.id === asked) ?? people[0]
  if (!person) throw new Refusal({ type: 'about:blank', status: 409, title: 'There is no person yet who could act' })
  return person
}

/** Refusals go out as problems; what is the server's own fault is logged under an id that the answer carries. */
export async function guarded<T>(event: H3Event, work: () => Promise<T>): Promise<T | Problem> {
  try {
    return await work()
  } catch (error) {
    // a question that fails in the core fails on what is stored, not on what was asked
    const problem = error instanceof InputError && event.method === 'GET' ? SERVER_FAULT : problemOf(error)
    setResponseStatus(event, problem.status)
    setResponseHeader(event, 'content-type', 'application/problem+json')
    if (problem.status < 500 || problem.type === 'urn:iron-nozzle:database') return problem
    const id = faultId()
    console.error(faultLine(id, error))
    return { ...problem, detail: `Fault ${id} in the log` }
  }
}

/** Whether the person who acts may use a route. The one place where accounts and roles will be asked. */
export function admit(who: Who): void {
  switch (who) {
    case 'everybody':
      return
    default:
      who satisfies never
  }
}

/** A database that goes away under a question and is back at once is nobody's fault: it is asked once more. */
async function again<T>(read: (db: Database) => Promise<T>): Promise<T> {
  const asked = async () => read(await database())
  try {
    return await answered(asked())
  } catch (error) {
    if (!isAway(error) || error === silent) throw error
    await sleep(ASK_AGAIN_MS)
    return await answered(asked())
  }
}
const ASK_AGAIN_MS = 400

/**
 * Something in between, a pooler or a forwarded port, may take the connection while there is no database behind it: who
 * asks is told so, and does not wait until there is one.
 */
async function answered<T>(reading: Promise<T>): Promise<T> {
  const late = new AbortController()
  const silence = sleep(SILENCE_MS, null, { signal: late.signal, ref: false }).then((): T => {
    throw silent
  })
  silence.catch(() => {})
  try {
    return await Promise.race([reading, silence])
  } finally {
    late.abort()
    // nobody waits for it any more
    reading.catch(() => {})
  }
}
const SILENCE_MS = 20_000
/** It is not asked again: who asked has waited long enough. */
const silent = Object.assign(new Error('The database is silent'), { code: 'CONNECTION_SILENT' })

/** A reading that is kept is written out once, as long as it is the same one. */
const written = new WeakMap<object, Packable>()
/** What each route said last: the same text is packed once. */
const latest = new Map<ReadPath, Packable>()
function packableOf(path: ReadPath, answer: object): Packable {
  const known = written.get(answer)
  if (known) return known
  const text = JSON.stringify(answer)
  const last = latest.get(path)
  const made = last?.text === text ? last : packable(text)
  written.set(answer, made)
  latest.set(path, made)
  return made
}

/**
 * A question to the records, worked out once for all who ask it at the same time. `alone`: the answer depends on who
 * asks.
 */
export function answering<P extends ReadPath>(
  path: P,
  read: (db: Database, event: H3Event<EventHandlerRequest>) => Promise<ReadAnswer<P>>,
  { alone = false } = {},
) {
  return defineEventHandler(event =>
    guarded(event, async () => {
      admit(READS[path].who)
      const started = performance.now()
      const work = async () => packableOf(path, await again(db => read(db, event)))
      const answer = await (alone ? work() : together(event.path, work, heardBy(event)))
      setResponseHeader(event, 'server-timing', `read;dur=${(performance.now() - started).toFixed(1)}`)
      setResponseHeader(event, 'cache-control', 'no-store')
      setResponseHeader(event, 'content-type', 'application/json')
      return await packed(event, answer)
    }),
  )
}

/** A question with a body; nothing is stored, so it needs no key. */
export function asking<P extends AskPath>(
  path: P,
  ask: (db: Database, body: AskBody<P>, event: H3Event) => Promise<AskAnswer<P>>,
) {
  return defineEventHandler(event =>
    guarded(event, async () => {
      admit(ASKS[path].who)
      const { body } = await parsed(event, ASKS[path].body)
      return await ask(await database(), body as AskBody<P>, event)
    }),
  )
}

/** A stream of events. */
export function streaming<T>(path: keyof typeof STREAMS, open: (event: H3Event) => T) {
  return defineEventHandler(event => {
    admit(STREAMS[path].who)
    return open(event)
  })
}

/** What stands behind the question mark of a path, by the route's schema. */
export function queryOf<Q extends z.ZodType>(event: H3Event, schema: Q): z.output<Q> {
  const q = schema.safeParse(getQuery(event))
  if (q.success) return q.data
  return refuseFields(q.error.issues.map(i => ({ field: String(i.path[0]), message: i.message })))
}

/** A text of the path, decoded; refused where it is not one. */
export function pathText(event: H3Event, name: string): string {
  const refuse = (message: string): never => {
    throw new Refusal({
      type: 'urn:iron-nozzle:field',
      status: 400,
      title: message,
      errors: [{ field: name, message }],
    })
  }
  let text: string
  try {
    text = decodeURIComponent(getRouterParam(event, name) ?? '')
  } catch {
    return refuse('A percent sign in the address is not followed by a character')
  }
  const fault = textFault(text)
  return fault === null ? text : refuse(fault)
}

/** The identifier in the path; what cannot be one is not known. */
export function pathId(event: H3Event, what: string): number {
  const id = idSchema.safeParse(Number(pathText(event, 'id')))
  return id.success ? id.data : notFound(what)
}

/** The kind of record that the path names. */
export function pathKind(event: H3Event): EditableKind {
  const kind = pathText(event, 'kind')
  return Object.hasOwn(EDIT.bodies, kind) ? (kind as EditableKind) : notFound('This kind of record')
}

async function parsed<S extends z.ZodType>(event: H3Event, schema: S): Promise<{ body: z.output<S>; raw: unknown }> {
  const text = await bodyOf(event)
  let raw: unknown
  try {
    raw = JSON.parse(text)
  } catch {
    throw new Refusal({ type: 'about:blank', status: 400, title: 'The body is not JSON' })
  }
  const fault = bodyFault(raw)
  if (fault !== null) refuseFields([fault])
  const result = schema.safeParse(raw)
  if (result.success) return { body: result.data, raw }
  const errors = result.error.issues.map(i => ({ field: i.path.join('.'), message: i.message }))
  throw new Refusal({ type: 'urn:iron-nozzle:field', status: 422, title: errors[0]!.message, errors })
}

type Save<S extends z.ZodType, T> = (
  tx: Connection,
  body: z.output<S>,
  personId: number,
  event: H3Event,
  raw: unknown,
) => Promise<T>

/** An entry or an edit that counts exactly once under its Idempotency-Key, however often it is sent. */
async function counted<S extends z.ZodType, T>(
  event: H3Event,
  schema: S,
  save: Save<S, T>,
  status: number,
): Promise<T> {
  const key = getHeader(event, 'idempotency-key') ?? ''
  if (!/^[\w-]{8,100}$/.test(key))
    throw new Refusal({
      type: 'about:blank',
      status: 400,
      title: 'Every entry needs an Idempotency-Key of 8 to 100 letters, digits and dashes',
    })
  const { body, raw } = await parsed(event, schema)
  const db = await database()
  const person = await actor(event, db)
  const { answer, repeated } = await once(
    db,
    { key, route: getRequestPath(event), body: raw, personId: person.id },
    tx => save(tx, body, person.id, event, raw),
  )
  setResponseHeader(event, 'idempotency-replayed', String(repeated))
  setResponseStatus(event, status)
  return answer
}

export function entry<P extends EntryPath>(
  path: P,
  save: (tx: Connection, body: EntryBody<P>, personId: number, event: H3Event) => Promise<EntryAnswer<P>>,
) {
  return defineEventHandler(event =>
    guarded(event, () => {
      admit(ENTRIES[path].who)
      return counted(
        event,
        ENTRIES[path].body,
        async (tx, body, personId, event) => {
          const { again } = ENTRIES[path] as { again?: EnteredKind }
          if (again) await strikeReplaced(tx, again, body as Replacing, personId)
          return await save(tx, body as EntryBody<P>, personId, event)
        },
        201,
      )
    }),
  )
}

/** What an edit names; what it leaves out stays as it is, the defaults of a new record are not filled in. */
const sentOf = ({ values }: EditBody, raw: EditBody) =>
  Object.fromEntries(Object.entries(values).filter(([key]) => Object.hasOwn(raw.values, key)))

/** An edit of a record: the fields depend on the kind of record that the path names. */
export function edit(
  save: (
    tx: Connection,
    kind: EditableKind,
    id: number,
    body: EditBody,
    personId: number,
  ) => Promise<z.output<(typeof EDIT)['answer']>>,
) {
  return defineEventHandler(event =>
    guarded(event, async () => {
      admit(EDIT.who)
      const kind = pathKind(event)
      const schema = EDIT.bodies[kind] as z.ZodType<EditBody>
      return await counted(
        event,
        schema,
        (tx, body, personId, _, raw) =>
          save(tx, kind, pathId(event, 'This record'), { ...body, values: sentOf(body, raw as EditBody) }, personId),
        200,
      )
    }),
  )
}
