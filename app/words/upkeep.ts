/** Upkeep in words: how often, how far it has come, and when it was done last. */
import type { UpkeepTask } from '#shared/answers/upkeep'
import { day } from '#shared/time'

const EACH = [
  ['everyHours', 'hours', 'h at work'],
  ['everyKg', 'kg', 'kg filled'],
  ['everyDays', 'days', 'days'],
] as const

/** "every 500 h at work or 180 days". */
export const everyWords = (t: UpkeepTask): string =>
  `every ${EACH.flatMap(([every, , unit]) => (t[every] === null ? [] : [`${t[every]} ${unit}`])).join(' or ')}`

/** "312 h at work and 40 days". */
export function goneWords(t: UpkeepTask): string {
  const gone = EACH.flatMap(([every, since, unit]) => {
    if (t[every] === null) return []
    return [`${since === 'kg' ? t.kg.toFixed(1) : Math.floor(t[since])} ${unit}`]
  })
  const unknown = t.everyHours !== null && t.withoutHours > 0 ? ` (${t.withoutHours} runs of unknown length)` : ''
  return `${gone.join(' and ')} gone${unknown}`
}

export function lastWords(t: UpkeepTask, zone: string): string {
  if (t.done === null) return t.guard === null ? 'never logged; counted from when it was planned' : 'never tested'
  const says = t.done.says === '' ? '' : `: ${t.done.says}`
  const found =
    t.guard === null ? t.done.found : ({ 'in order': 'it tripped' }[t.done.found as string] ?? 'did not trip')
  return `${day(t.done.at, zone)}, ${t.done.by}, ${found}${says}`
}
