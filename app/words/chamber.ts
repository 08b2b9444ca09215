/** Chambers in words: how one stands open, what a probe says, how even the air is, and what decides. */
import { SURVEY_DAYS } from '#core/schedule'
import type { Evenness, ProbeFound, SurveyState } from '#core/chamber'
import { PLACE_WORDS, type KnownLine, type Opening } from '#core/limits'
import { celsius, listed } from '#core/words'

export const OPENING_WORDS: Record<Opening, string> = {
  'shut': 'on, shut',
  'vent open': 'on, vent open',
  'raised': 'raised on a riser',
  'off': 'off',
}
/** How a chamber was, as "lid on, shut; fan on; door 20 mm open". */
export function stateWords({ opening, fan, gapMm }: SurveyState): string {
  const of = [`lid ${OPENING_WORDS[opening]}`]
  if (fan !== null) of.push(`fan ${fan ? 'on' : 'off'}`)
  if (gapMm > 0) of.push(`door ${gapMm} mm open`)
  return of.join('; ')
}

/** A share of the way from the room to the bed, or °C over a heater's setpoint, with its U. */
export function shareWords(by: 'bed' | 'heater', value: number, u90: number): string {
  if (by === 'bed')
    return `${Math.round(value * 100)} ± ${Math.max(1, Math.round(u90 * 100))} % of the way from room to bed`
  if (Math.abs(value) < 0.05) return `as its setpoint, ± ${u90.toFixed(1)} °C`
  const way = value < 0 ? 'under' : 'over'
  return `${Math.abs(value).toFixed(1)} ± ${u90.toFixed(1)} °C ${way} the setpoint`
}

/** Where a probe stands at the end of its readings. */
export function steadyWords({ steady, odd }: Pick<ProbeFound, 'steady' | 'odd'>): string {
  const at = steady.c === null ? '' : ` at ${steady.c.toFixed(1)} °C`
  const toGo = `about ${(steady.toGoC ?? 0).toFixed(1)} °C may still be to go`
  if (odd) return `no air of this chamber is${at}: does it touch bed or head?`
  switch (steady.state) {
    case 'steady':
      return `steady${at}`
    case 'died':
      if (steady.lastS === null) return 'it read nothing'
      return `it stopped reading after ${Math.round(steady.lastS / 60)} min: it counts for nothing`
    case 'cannot tell':
      return steady.toGoC === null
        ? 'read it at least three times, some minutes apart'
        : `nobody can tell yet: ${toGo}; read on`
    default:
      return `still ${steady.state}${at}, by ${Math.abs(steady.slopePerH!).toFixed(0)} °C an hour: ${toGo}`
  }
}

const WAYS = [
  ['to the right', 'to the left'],
  ['to the back', 'to the front'],
  ['to the top', 'to the bed'],
] as const
/** A component of the way that is less than this share of it is not named. */
const NAMED_SHARE = 0.35
export function evennessWords(e: Evenness): string {
  if (!e.known)
    return e.why === 'fewer than four probes'
      ? 'How even the air is takes four probes that are steady, not in one plane.'
      : 'How even the air is cannot be told: the probes lie in one plane.'
  const ways = e.towards.flatMap((v, i) => (Math.abs(v) < NAMED_SHARE ? [] : [WAYS[i]![v > 0 ? 0 : 1]]))
  const slope = `${e.per100Mm.toFixed(1)} ± ${e.u90.toFixed(1)} °C per 100 mm`
  return `The air changes by ${slope}, warmer ${listed(ways, 'and')}.`
}

/** How a part in the air stands, as its mark. */
export const LINE_MARK = { ok: 'fine', look: 'fine', just: 'look', short: 'stop' } as const
/** "printed idler, PETG near the top: the air is 66 ± 2 °C, it may be 65 °C". */
export function airLineWords(l: KnownLine, place: string): string {
  const range = l.u90 > 0 ? ` ± ${Math.max(1, Math.round(l.u90))}` : ''
  return `${l.part!.name}, ${place}: the air is ${l.asked!.toFixed(0)}${range} °C, it may be ${celsius(l.allowed!)}`
}
export const placeOf = (place: keyof typeof PLACE_WORDS) => PLACE_WORDS[place]

/** A survey of long ago still counts, and is due again: common practice, no source. */
export const isOld = (at: string) => Date.now() - Date.parse(at) > SURVEY_DAYS * 86_400_000
