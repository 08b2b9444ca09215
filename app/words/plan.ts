/** Plans of enclosures in words: spans with honest digits, what keeps a part safe, what a stuck heater does. */
import type { Fits, Outcome, Span, Stuck, TouchLine } from '#core/chamber'
import { PLACE_WORDS } from '#core/limits'
import { duration, listed } from '#core/words'
import type { Mark } from '#shared/answers/parts'

/** "63 to 71 °C"; one number where both round to it. */
export function spanWords({ low, high }: Span, unit: string, digits = 0): string {
  const [a, b] = [low.toFixed(digits), high.toFixed(digits)]
  return a === b ? `${a} ${unit}` : `${a} to ${b} ${unit}`
}
/** Two honest digits of a flow or an area. */
export function roughly({ low, high }: Span, unit: string): string {
  const two = (v: number) => (v < 1 ? '0' : String(Number(v.toPrecision(2))))
  return two(low) === two(high) ? `${two(high)} ${unit}` : `${two(low)} to ${two(high)} ${unit}`
}
export const minutesWords = ({ low, high }: Span) => spanWords({ low: low / 60, mid: 0, high: high / 60 }, 'min')

const BASIS: Record<Fits['basis'], string> = {
  'both ways':
    'One warm-up cannot tell what leaves through the walls from what leaves through gaps: each range spans both.',
  'walls only': 'By its warm-up it loses less than is drawn: the walls are taken to be better, gaps as drawn.',
  'gaps only': 'By its warm-up the loss beyond what is drawn can only be gaps.',
  'no record': 'No warm-up by the bed alone is recorded: the range is that of films and workmanship.',
  'record does not fit': 'Its warm-up does not fit what is drawn: look at walls, gaps and the bed’s power again.',
}
export const basisWords = (f: Fits) => BASIS[f.basis]

export function touchWords(t: TouchLine): string {
  const at = spanWords(t.outsideC, '°C')
  if (t.safeS === 0) return `${at}: a brush of it may burn`
  if (t.safeS >= 28_800) return `${at}: may be leaned on all day`
  return `${at}: burns if touched for more than ${duration(t.safeS)}`
}
export const touchMark = (t: TouchLine): Mark => {
  if (t.outsideC.high < t.burnsFromC) return 'fine'
  return t.safeS === 0 ? 'stop' : 'look'
}

/** Beyond what is reckoned with any number is as good as another. */
const BEYOND_C = 399
const hotWords = (s: Span) => {
  if (s.low >= BEYOND_C) return 'over 400 °C'
  return s.high >= BEYOND_C ? `${s.low.toFixed(0)} °C or more` : spanWords(s, '°C')
}

export function stuckWords(s: Stuck, cutOutC: number | null): { mark: Mark; text: string } {
  const heater = s.heater === 'bed' ? 'bed’s heater' : 'chamber heater'
  const to = `With the ${heater} stuck on the air goes to ${hotWords(s.meanC)}`
  const names = listed(
    s.over.map(p => p.name),
    'and',
  )
  const over = s.over.length > 0 ? `too much for ${names}` : 'which every part of which the limit is known stands'
  if (s.cutOut === null)
    return { mark: s.over.length > 0 ? 'stop' : 'look', text: `${to}, ${over}. There is no cut-out in this plan.` }
  if (s.cutOut === 'opens first')
    return {
      mark: s.over.length > 0 ? 'stop' : 'fine',
      text: `${to}; the cut-out opens at ${cutOutC} °C, ${over}.`,
    }
  const when = s.cutOut === 'may open' ? 'may not open' : 'never opens'
  return {
    mark: s.over.length > 0 ? 'stop' : 'look',
    text: `${to}, ${over}. A cut-out of ${cutOutC} °C ${when}: it is set too high to help.`,
  }
}

/** The sentence that leads: where it comes to, for whom that is too much, and what keeps it safe. */
export function planSentence(o: Outcome, unknown: readonly string[]): { mark: Mark; text: string } {
  const [low, high] = [spanWords(o.then.places.low, '°C'), spanWords(o.then.places.high, '°C')]
  const air = `As planned the air near bed and head comes to ${low}, near the top to ${high}`
  const worst = o.then.parts[0]
  if (!worst) return { mark: 'look', text: `${air}. Nothing is known of the parts that would stand in it.` }
  const what = `${worst.name} ${PLACE_WORDS[worst.place]} may be ${worst.allowedC.toFixed(0)} °C`
  const who = unknown.length > 0 ? ` Of ${listed(unknown, 'and')} nobody knows what they stand.` : ''
  if (worst.spareC.low >= 0) return { mark: unknown.length > 0 ? 'look' : 'fine', text: `${air}: ${what}.${who}` }
  const mark = worst.spareC.high < 0 ? 'stop' : 'look'
  if (o.keepSafe === 'no air would do') return { mark, text: `${air}: ${what}. No vent would keep it there.${who}` }
  if (o.keepSafe === null) return { mark, text: `${air}: ${what}. Set the heater lower.${who}` }
  const draw = roughly(o.keepSafe.fanLMin, 'l/min')
  const open = roughly(o.keepSafe.gapMm2, 'mm²')
  const keeps = `A fan that draws ${draw} out by a thermostat there, or ${open} more of openings, keeps it safe.`
  return { mark, text: `${air}: ${what}. ${keeps}${who}` }
}
