/**
 * A fault of the server in one line, with an id that the answer carries too: who reports it names the id, who looks
 * after the shop finds the line. Not the query with its parameters: four hundred of them bury what matters, and they
 * hold what people typed.
 */
import { randomBytes } from 'node:crypto'

/** An id that is read aloud without mistakes. */
export const faultId = (): string => randomBytes(4).toString('hex')

/** As much of a message as tells what it is. */
const MOST = 200

/** The line: id, kind and code, the message of what caused it, and where. */
export function faultLine(id: string, error: unknown): string {
  const cause = causeOf(error)
  if (!(cause instanceof Error)) return `fault ${id}: ${firstLine(String(cause))}`
  const code = (cause as { code?: unknown }).code
  const where = ownFrame(error) ?? ownFrame(cause)
  return (
    `fault ${id}: ${cause.name}${typeof code === 'string' ? ` ${code}` : ''}: ${firstLine(cause.message)}` +
    (where === null ? '' : ` (${where})`)
  )
}

/** What lies at the bottom: a query that failed says all of itself, what made it fail says why. */
function causeOf(error: unknown): unknown {
  let at = error
  for (let deep = 0; deep < 5 && at instanceof Error && at.cause !== undefined; deep++) at = at.cause
  return at
}
const firstLine = (text: string): string => {
  const line = text.split('\n')[0]!.trim()
  return line.length > MOST ? `${line.slice(0, MOST)}…` : line
}
/** The first place that is not of a package or of Node itself. */
function ownFrame(error: unknown): string | null {
  if (!(error instanceof Error)) return null
  const frame = (error.stack ?? '')
    .split('\n')
    .find(l => /^\s+at /.test(l) && !l.includes('node_modules') && !l.includes('node:'))
  return frame
    ? frame
        .trim()
        .replace(/^at /, '')
        .replace(/^(\S+ )?\(?.*\/([^/]+:\d+):\d+\)?$/, '$1$2')
    : null
}
