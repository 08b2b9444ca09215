/** Whose turn it is in a list that is worked off line by line: what waits here to be sent is done already. */
import type { EntryPath } from '#shared/api'
import type { Queued } from '~/state/outbox'

export type Waiting = readonly Pick<Queued, 'route' | 'body'>[]

/** Entries that work off a list: their route, and the field that names the list. */
export interface TurnKind {
  route: EntryPath
  of: string
}

/** The first line that is open and that nothing waits for; null when there is none. `open` says so of each line. */
export function nextOpen(kind: TurnKind, id: number, open: readonly boolean[], waiting: Waiting): number | null {
  const kept = new Set(waiting.filter(e => e.route === kind.route && e.body[kind.of] === id).map(e => e.body.line))
  const i = open.findIndex((isOpen, k) => isOpen && !kept.has(k))
  return i < 0 ? null : i
}
