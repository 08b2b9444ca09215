/** Verdicts in a technician's words: the sentence that a screen leads with. Pure text, as in `words.ts`. */
import { celsius, listed } from '../words'
import type { Verdict } from './changes'
import { ROOM_AIR } from './operating'
import type { FittedNozzle, KnownLine, Line } from './types'
import { degrees as c, furthestOver, inOrder, marginOf, reason } from './words'

/** The fine line with the least margin of those in °C that a part decides; what stands in room air decides nothing. */
export function tightest(lines: readonly Line[]): { line: KnownLine; margin: number } | null {
  let best: { line: KnownLine; margin: number } | null = null
  for (const l of lines) {
    const margin = marginOf(l)
    if (l.status !== 'ok' || margin === null || l.unit !== '°C' || l.key === 'dryer' || l.rests === ROOM_AIR) continue
    if (l.key === 'chamber' && !['heated', 'bed-heated', 'too warm'].includes(l.code)) continue
    if (best === null || margin < best.margin) best = { line: l, margin }
  }
  return best
}

/** The verdict in one sentence, with its number and its reason. `blockers`: what no swap cures, when it cannot. */
export function sentenceOf(
  v: Verdict,
  printer: string,
  nozzle: FittedNozzle | null,
  blockers: readonly Line[] = [],
): string {
  const who = v.demand.name
  const missing = [...new Set(v.lines.flatMap(l => (l.status === 'unknown' ? [l.missing] : [])))]
  if (v.class === 'runs') {
    const t = tightest(v.lines)
    if (!t) return `${who} runs on ${printer}.`
    const left = Math.abs(t.margin) < 1e-9 ? 'the guard band is used up' : `${Number(t.margin.toFixed(1))} °C left`
    return (
      `${who} runs on ${printer}. Tightest is the ${t.line.part?.name ?? t.line.key}: asks ${c(t.line.asked)}, ` +
      `allows ${c(t.line.allowed)}, ${left}.`
    )
  }
  if (v.class === 'just') {
    const just = v.lines.filter((l): l is KnownLine => l.status === 'just')
    const worst = furthestOver(just)!
    const more = just.length > 1 ? `; and ${just.length - 1} more` : ''
    return (
      `${who} runs on ${printer}, just: ${reason(worst, v.demand, nozzle)}, known to ${celsius(worst.u90)}${more}. ` +
      `Measure the air there to know.`
    )
  }
  if (v.class === 'cannot tell')
    return (
      `Cannot tell whether ${who} runs on ${printer}: ${missing[0] ?? 'a fact'} is missing` +
      `${missing.length > 1 ? `, and ${missing.length - 1} more` : ''}.`
    )
  const of = v.class === 'cannot' && blockers.length > 0 ? blockers : inOrder(v.lines.filter(l => l.status === 'short'))
  return (
    `${who} ${v.class === 'cannot' ? 'cannot run' : 'does not run'} on ` +
    `${printer}${v.class === 'cannot' ? '' : ' as it is'}: ${of
      .slice(0, 2)
      .map(l => reason(l, v.demand, nozzle))
      .join('; ')}${of.length > 2 ? `; and ${of.length - 2} more` : ''}.` +
    `${missing.length > 0 ? ` Not known besides: ${listed(missing, 'and')}.` : ''}`
  )
}
