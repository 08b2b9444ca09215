/** How what stops a runaway heater stands by its latest test: one reading for server, certificate and due list. */
import { guardState, type Guard, type GuardState } from '#core/chamber'
import { dueOfGuard, type Due } from '#core/schedule'

const DAY_MS = 86_400_000

/** The latest test of a guard; `changed`: its heater or sensor was changed since. */
export interface LastTest {
  at: string
  tripped: boolean
  changed: boolean
}

export const guardStands = (last: LastTest | null, nowMs: number, everyDays?: number): GuardState =>
  guardState(last && { atMs: Date.parse(last.at), tripped: last.tripped, changed: last.changed }, nowMs, everyDays)

/** What is due of it at a printer, wanted every so many days. */
export function guardDue(
  printer: string,
  guard: Guard,
  last: LastTest | null,
  nowMs: number,
  everyDays: number,
): Due | null {
  const days = last === null ? null : (nowMs - Date.parse(last.at)) / DAY_MS
  return dueOfGuard(printer, guard, guardStands(last, nowMs, everyDays), { days, every: everyDays })
}
