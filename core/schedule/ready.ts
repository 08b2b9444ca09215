/**
 * Whether a printer is ready for work at all: a procedure left open, a tag that takes it out of service, a note that
 * nobody has read, a commissioning that is still to be done. One rule for the Floor, Equip and the check before a run.
 */
import { needEach } from '../numeric'
import { weightOf, type Due } from './due'

export interface Standing {
  procedures: readonly { id: number; title: string; done: number; of: number; by: string }[]
  tags: readonly { id: number; why: string; by: string }[]
  notes: readonly { id: number; says: string; by: string }[]
  /** New or rebuilt, and not commissioned since. */
  toCommission: boolean
}
/** A printer that nothing stands against. */
export const NOTHING_STANDS: Standing = { procedures: [], tags: [], notes: [], toCommission: false }

/** `stops`: it must not run before this is done; otherwise it is to be read first. */
export interface NotReady extends Due {
  stops: boolean
}

/**
 * What keeps a printer from being ready, what can hurt or break most first; empty when nothing does. Steps done and in
 * all are counts.
 *
 * @example
 * notReady('P', { procedures: [], tags: [], notes: [], toCommission: true })[0].stops // true
 */
export function notReady(printer: string, s: Standing): NotReady[] {
  const at = { about: null, station: 'change' } as const
  const page = `/change?printer=${encodeURIComponent(printer)}`
  for (const p of s.procedures) needEach(p, ['done', 'of'], 0, 1000)
  return [
    ...s.tags.map(t => ({
      ...at,
      mark: 'stop' as const,
      stops: true,
      reason: `Out of service: ${t.why} (${t.by}).`,
      action: 'See what must be proved',
      of: `tag ${t.id}`,
      open: page,
      weight: weightOf(96),
    })),
    ...s.procedures.map(p => ({
      ...at,
      mark: 'stop' as const,
      stops: true,
      reason: `Not ready: ${p.title} is under way, ${p.done} of ${p.of} steps done (${p.by}).`,
      action: 'Go on with it',
      open: `/change/${p.id}`,
      weight: weightOf(94),
    })),
    // an open commissioning says so itself
    ...(s.toCommission && s.procedures.length === 0
      ? [
          {
            ...at,
            mark: 'stop' as const,
            stops: true,
            reason: 'Not commissioned: new or rebuilt, and nobody has proved it yet.',
            action: 'Commission it',
            open: page,
            weight: weightOf(90),
          },
        ]
      : []),
    ...s.notes.map(n => ({
      ...at,
      mark: 'look' as const,
      stops: false,
      reason: `A note from ${n.by}: ${n.says}`,
      action: 'Read and sign it',
      of: `note ${n.id}`,
      open: page,
      weight: weightOf(48),
    })),
  ]
}
