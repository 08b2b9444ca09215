/** Talking to the server: plain fetch, problem+json turned into one kind of error. */
import type { Problem } from '#shared/problem'

export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.title)
    this.name = 'ProblemError'
  }
}
/** The server, or its database, could not be reached: the entry may be queued. */
export class UnreachableError extends Error {}

async function request<T>(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<T> {
  let response: Response
  try {
    response = await fetch(path, { method, headers: body === undefined ? headers : { 'content-type': 'application/json', ...headers }, body: body === undefined ? undefined : JSON.stringify(body), signal: AbortSignal.timeout(15_000) })
  } catch {
    throw new UnreachableError('The server does not answer')
  }
  const type = response.headers.get('content-type') ?? ''
  if (type.includes('problem+json')) {
    const problem = await response.json() as Problem
    if (problem.status === 503) throw new UnreachableError(problem.title)
    throw new ProblemError(problem)
  }
  if (!response.ok || !type.includes('json')) {
    if (response.status >= 502 && response.status <= 504) throw new UnreachableError('The server does not answer')
    throw new ProblemError({ type: 'about:blank', status: response.status, title: `The server answered ${response.status}` })
  }
  return await response.json() as T
}

export const read = <T>(path: string) => request<T>('GET', path)
export const post = <T>(path: string, body: unknown, key: string) => request<T>('POST', path, body, { 'idempotency-key': key })
export const patch = <T>(path: string, body: unknown) => request<T>('PATCH', path, body)

/** A key for one entry. getRandomValues works on plain http, where crypto.randomUUID does not. */
export function newKey(): string {
  return Array.from(crypto.getRandomValues(new Uint8Array(16)), b => b.toString(16).padStart(2, '0')).join('')
}
