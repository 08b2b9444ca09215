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

/** What answers were given to: which check it was, and its lines. `work` is job, tool, spool and filament. */
export interface Answered {
  /** Printer and head: what eyes saw was seen there. */
  place: string
  work: string
  lines: readonly Pick<CheckLine, 'key' | 'status' | 'says'>[]
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

/**
 * The answers of a check that was made anew. What eyes saw still holds on the same printer and head while the line says
 * the same; a reason was given for one job of one spool, and holds while its line stands as it stood. Nothing else is
 * carried to another printer, job or spool: it would be a tick that nobody gave.
 */
export function stillAnswered(answers: readonly Answer[], before: Answered, after: Answered): Answer[] {
  if (before.place !== after.place) return []
  const taken = new Set<number>()
  return answers.flatMap(a => {
    const was = before.lines[a.index]
    if (!was || (a.how !== 'looked' && before.work !== after.work)) return []
    const same = (l: Answered['lines'][number]) => l.key === was.key && l.status === was.status
    const word = after.lines.findIndex(l => same(l) && l.says === was.says)
    // numbers of a waived line move with the clock
    const index = word >= 0 || a.how === 'looked' ? word : alone(before.lines, after.lines, same)
    if (index < 0 || taken.has(index)) return []
    taken.add(index)
    return [{ ...a, index }]
  })
}
/** The line of that kind, where there is one only, before and after: of two nobody knows which was meant. */
function alone(before: Answered['lines'], after: Answered['lines'], same: (l: Answered['lines'][number]) => boolean) {
  return before.filter(same).length === 1 && after.filter(same).length === 1 ? after.findIndex(same) : -1
}
