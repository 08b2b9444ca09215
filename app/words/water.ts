/** Words and small sums of Prepare's screens. */
import type { ShopAir, SpoolState } from '#shared/answers/spools'
import { drynessOf, type Dryness } from '#shared/prepared'
import { day } from '#shared/time'
import { FOR_GOOD_H, hours, water } from '#core/words'

export { drynessOf, type Dryness }
/** Below clean is fine, between the marks a look; too wet is what it is for that filament. */
export function drynessVerdict(s: SpoolState): 'fine' | 'look' | 'stop' {
  const dry = drynessOf(s)
  if (dry === 'wet') return s.water!.verdict
  return dry === 'clean' ? 'fine' : 'look'
}

export function placeWords(s: SpoolState): string {
  if (s.problem !== null) return 'place not known'
  if (s.ended !== null) return s.ended
  if (s.place === 'sealed') return 'not opened'
  if (s.place === 'dryer') return `in ${s.drying?.dryer ?? 'a dryer'}`
  if (s.place === 'dry box') return 'in the dry box'
  return s.printer ? `on ${s.printer}, in room air` : 'out in the room'
}

type Water = NonNullable<SpoolState['water']>
/** What it holds, at least and at most; one number where both are the same to two digits. */
export function heldWords(w: Pick<Water, 'low' | 'wound'>): string {
  const [low, high] = [water(w.low), water(w.wound)]
  return low === high ? `about ${high}` : `${low.replace(' wt%', '')} to ${high}`
}

export function spoolSentence(s: SpoolState): string {
  const w = s.water
  if (s.problem !== null) return `${s.problem}.`
  if (s.ended !== null)
    return `${s.tag} is ${s.ended}. It is offered nowhere; what was printed from it and how it dried still count.`
  if (s.takesNoWater) return `${s.material} takes up no water: it needs no drying.`
  if (s.place === 'sealed')
    return `${s.tag} was never opened here. Nobody knows how long it lay before it was sealed: dry it.`
  if (w === null) return `How ${s.material} takes up water is not known; enter it under Equip, Materials.`
  if (w.dryness === 'wet')
    return `${s.tag} is too wet: ${heldWords(w)} of water, ${s.material} usually prints up to ${water(w.usual)}.`
  if (s.place === 'dryer')
    return `${s.tag} is in ${s.drying?.dryer ?? 'a dryer'} at ${s.drying?.setC ?? '?'} °C, ${heldWords(w)} left.`
  if (w.dryness === 'unknown')
    return w.dried
      ? `${s.tag} was dried, but not so long that it is sure: it holds ${heldWords(w)}, and ${s.material} usually ` +
          `prints up to ${water(w.usual)}. Dry it on.`
      : `${s.tag} was never dried here, and nobody knows what it held when it came: ${heldWords(w)}. Dry it.`
  return dryWords(s, w)
}
function dryWords(s: SpoolState, w: Water): string {
  const boxed = s.place === 'dry box'
  const stays = boxed ? w.inBox : w.inRoom
  const head =
    w.dryness === 'clean'
      ? `${s.tag} is clean: ${heldWords(w)} of water`
      : `${s.tag} usually prints as it is: ${heldWords(w)} of water; clean below ${water(w.clean)}`
  if (stays.woundH >= FOR_GOOD_H && stays.strandH >= FOR_GOOD_H)
    return `${head}. ${placeStart(s)} it stays below ${water(w.usual)}.`
  if (w.strand > w.usual) return `${head}, for about ${hours(stays.woundH)} more; its outer turns are not so dry.`
  return (
    `${head}. ${placeStart(s)} it usually prints for about ${hours(stays.woundH)} more, a single strand for ` +
    `${hours(stays.strandH)}.`
  )
}
const placeStart = (s: SpoolState) => (s.place === 'dry box' ? 'In the dry box' : 'Out in the room')

/** What a box must be to keep it, from its marks and what it takes up. */
export function boxWords(w: Pick<Water, 'boxUsualRh' | 'boxCleanRh'>): string {
  const rh = (v: number) => (v >= 100 ? 'any' : `${v < 10 ? v.toFixed(1) : v.toFixed(0)} %`)
  if (w.boxUsualRh >= 100) return 'usually prints after any air'
  return `stays printable while the box stays below ${rh(w.boxUsualRh)}; clean below ${rh(w.boxCleanRh)}`
}

/** A hygrometer's reading older than this is asked for again, days; common practice, no source. */
const READING_DAYS = 14
/** What the dry box's humidity rests on. */
export function boxReading(air: ShopAir, zone: string, now = Date.now()): string {
  if (air.dryBoxReadAt === null) return `${air.dryBoxRh} % is a start value: read its hygrometer`
  const old = now - Date.parse(air.dryBoxReadAt) > READING_DAYS * 86_400_000
  return `${air.dryBoxRh} %, read on ${day(air.dryBoxReadAt, zone)}${old ? ': read it again' : ''}`
}
