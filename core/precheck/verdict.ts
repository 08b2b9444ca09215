/** The verdict of a check with a person's answers to its lines. */
import type { CheckLine } from './types'

/** A line looked at, or waived with a reason. `fixed` stands in older checks only: it was a mere click. */
export interface Answer {
  index: number
  how: 'looked' | 'waived' | 'fixed'
  reason: string
}
export interface PrecheckVerdict {
  may: boolean
  open: number[]
  waived: number
}

/** Shortest reason that says anything, in characters. */
export const REASON_CHARS = 3

/**
 * Whether an answer closes a line: eyes close what only eyes can tell, a reason what may be waived; nothing else does.
 */
export function settles(l: CheckLine, a: Answer | undefined): boolean {
  if (l.status === 'ok' || l.status === 'note') return true
  if (!a) return false
  if (a.how === 'looked') return l.status === 'confirm'
  return a.how === 'waived' && l.waivable && a.reason.trim().length >= REASON_CHARS
}

/**
 * Start only when every line is fine, looked at where eyes are the instrument, or waived with a reason. Everything else
 * is set right by changing the fact it rests on; then the line is judged anew.
 */
export function verdictOf(lines: readonly CheckLine[], answers: readonly Answer[]): PrecheckVerdict {
  const of = (i: number) => answers.find(a => a.index === i)
  const open = lines.flatMap((l, i) => (settles(l, of(i)) ? [] : [i]))
  const waived = lines.filter((l, i) => of(i)?.how === 'waived' && l.status !== 'ok' && l.status !== 'note')
  return { may: open.length === 0, open, waived: waived.length }
}
