/** How long a type lives, in words. */
import { chance, counted, kg, kgBetween, listed } from '#core/words'
import type { LifeEnd } from '#core/life'
import type { TypeLife } from '#shared/answers/lives'

type Ended = Pick<TypeLife, 'nozzles'>
export const countOf = (t: Ended, ...ends: LifeEnd[]): number => t.nozzles.filter(n => ends.includes(n.end)).length

/** What wore them, for a heading. */
export const fillerWords = (t: Pick<TypeLife, 'filler'>): string => {
  if (t.filler === null) return 'all fillers'
  if (t.filler === 'several') return 'several fillers'
  return t.filler === 'none' ? 'unfilled filament' : t.filler
}

/** A range whose ends may be open. */
export function rangeWords({ low80, high80 }: { low80: number | null; high80: number | null }): string {
  if (low80 === null && high80 === null) return '80 %: no end to either side'
  if (low80 === null) return `80 % up to ${kg(high80)}`
  return high80 === null ? `80 % from ${kg(low80)}, no upper end` : kgBetween(low80, high80)
}

/** What is known of a type's life, in one sentence. */
export function lifeSentence(t: TypeLife): string {
  if (!t.fit) return `${t.typeName}: cannot tell how long it lives: ${t.cannotTell}.`
  return (
    `${t.typeName}: one in ten is past its limit after ${kg(t.fit.b10)} of fibre; on average it takes ` +
    `${kg(t.fit.mean)}.`
  )
}

/** What the answer rests on, and what it leaves out. */
export function lifeNotes(t: TypeLife): string[] {
  const out: string[] = []
  const past = countOf(t, 'found past its limit')
  const lived = countOf(t, 'in service', 'retired within its limit', 'retired on forecast')
  out.push(
    `${counted(past, 'nozzle')} found past the limit, each somewhere between two gauges; ${lived} never found past ` +
      `it, counted to the last gauge.`,
  )
  const onForecast = countOf(t, 'retired on forecast')
  const retired = onForecast + past + countOf(t, 'retired within its limit')
  if (onForecast > 0)
    out.push(
      `${onForecast} of ${retired} retired (${chance(onForecast / retired)}) went on their forecast. That ends lives ` +
        `just before they would have ended, and makes the life look longer than it is.`,
    )
  const used = countOf(t, 'came used')
  const unseen = countOf(t, 'not gauged since it was new')
  const left = [
    ...(used > 0 ? [`${used} that came used`] : []),
    ...(unseen > 0 ? [`${unseen} not gauged since new`] : []),
  ]
  if (left.length > 0) out.push(`Left out: ${listed(left, 'and')}.`)
  return out
}
