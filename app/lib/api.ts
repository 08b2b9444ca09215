/** Talking to the server: plain fetch, problem+json turned into a few kinds of error. */
import type { z } from 'zod'
import type { AskAnswer, AskPath, EDIT, EntryAnswer, EntryPath, ReadAnswer, ReadPath } from '#shared/api'
import type { EditableKind } from '#shared/entries/edits'
import { EDIT_PATH, HEARD, pathOf, type PathParams } from '#shared/paths'
import type { Problem } from '#shared/problem'
import { spoken } from '~/lib/zone'

/** The server says what is wrong. */
export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.title)
    this.name = 'ProblemError'
  }
}
/** The server failed on it (5xx): the fault is not the entry's, so it may be sent again. */
export class FaultError extends ProblemError {}
/** What was sent is there: it was taken so long ago that its answer is not kept. */
export const isStored = (error: unknown): boolean =>
  error instanceof ProblemError && error.problem.type === 'urn:iron-nozzle:already-stored'
/** The server, or its database, could not be reached: the entry may be queued. */
export class UnreachableError extends Error {}

const PATIENCE_MS = 15_000
/** Questions that may take long, and say meanwhile how far they are. */
const LONG: readonly string[] = ['/api/intake', '/api/intake/look']
const LONG_MS = 300_000

async function request<T>(
  method: string,
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<T> {
  let response: Response
  try {
    response = await fetch(path, {
      method,
      headers: body === undefined ? headers : { 'content-type': 'application/json', ...headers },
      body: body === undefined ? undefined : JSON.stringify(body),
      signal: AbortSignal.timeout(LONG.includes(path) ? LONG_MS : PATIENCE_MS),
    })
  } catch {
    throw new UnreachableError('The server does not answer')
  }
  const type = response.headers.get('content-type') ?? ''
  const isProblem = type.includes('problem+json')
  if (response.ok && type.includes('json') && !isProblem) return (await response.json()) as T
  const problem: Problem = isProblem
    ? spoken((await response.json()) as Problem)
    : { type: 'about:blank', status: response.status, title: `The server answered ${response.status}` }
  if (response.status >= 502 && response.status <= 504) throw new UnreachableError(problem.title)
  throw response.status >= 500 ? new FaultError(problem) : new ProblemError(problem)
}

/** The news that were heard last: what is read because of them is read once for all who heard them. */
let heard: string | null = null
export function heardNews(mark: string): void {
  heard = mark
}
/** After a save of one's own the next reading must show it, whatever was heard before. */
async function saving<T>(request: Promise<T>): Promise<T> {
  try {
    return await request
  } finally {
    heard = null
  }
}

export const read = <P extends ReadPath>(path: P, params?: PathParams, query: Record<string, string> = {}) => {
  const search = new URLSearchParams(query).toString()
  const address = `${pathOf(path, params)}${search === '' ? '' : `?${search}`}`
  return request<ReadAnswer<P>>('GET', address, undefined, heard === null ? {} : { [HEARD]: heard })
}
/** A question with a body; nothing is stored. */
export const ask = <P extends AskPath>(path: P, body: unknown) => request<AskAnswer<P>>('POST', path, body)
export const post = <P extends EntryPath>(path: P, body: unknown, key: string) =>
  saving(request<EntryAnswer<P>>('POST', path, body, { 'idempotency-key': key }))
export const patch = (kind: EditableKind, id: number, body: unknown, key: string) =>
  saving(
    request<z.output<(typeof EDIT)['answer']>>('PATCH', pathOf(EDIT_PATH, { kind, id }), body, {
      'idempotency-key': key,
    }),
  )

/** A key for one entry. getRandomValues works on plain http, where crypto.randomUUID does not. */
export function newKey(): string {
  return Array.from(crypto.getRandomValues(new Uint8Array(16)), b => b.toString(16).padStart(2, '0')).join('')
}

/** The key of an entry that takes the place of another: the same in every tab that makes the change. */
export function keyAfter(key: string): string {
  const [first, n = '1'] = key.split('-')
  return `${first}-${Number(n) + 1}`
}
