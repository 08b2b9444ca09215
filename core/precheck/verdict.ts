/** The verdict of a check with a person's answers to its lines. */
import type { CheckLine } from './types'

/** A line set right (or looked at), or waived with a reason. */
export interface Answer {
  index: number
  how: 'fixed' | 'waived'
  reason: string
}
export interface PrecheckVerdict {
  may: boolean
  open: number[]
  waived: number
}

/**
 * Start only when every line is fine, looked at, or waived with a reason. A line that stops is set right by changing
 * what it rests on, which turns it fine, or waived with a reason; what could break the machine is never waived.
 */
export function verdictOf(lines: readonly CheckLine[], answers: readonly Answer[]): PrecheckVerdict {
  const of = (i: number) => answers.find(a => a.index === i)
  const open = lines.flatMap((l, i) => {
    const a = of(i)
    const settled =
      l.status === 'ok' ||
      (a?.how === 'fixed' && l.status !== 'stop' && l.waivable) ||
      (a?.how === 'waived' && l.waivable && a.reason.trim().length >= 3)
    return settled ? [] : [i]
  })
  return {
    may: open.length === 0,
    open,
    waived: answers.filter(a => a.how === 'waived' && lines[a.index]?.status !== 'ok').length,
  }
}
