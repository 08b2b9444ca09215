/** Words and small sums of Prepare's screens. */
import type { SpoolState } from '#shared/answers/spools'
import { FOR_GOOD_H, hours, water } from '#core/words'

export type Dryness = 'dry' | 'soon' | 'wet' | 'unknown'
/** A spool's state by the wound-spool estimate; "soon" when less than this stays. */
const SOON_H = 4
export function drynessOf(s: SpoolState): Dryness {
  const w = s.water
  if (w === null || s.place === 'sealed' || s.ended !== null) return 'unknown'
  if (w.wound > w.printable) return 'wet'
  return Math.min(w.inRoom.strandH, w.inRoom.woundH) < SOON_H && s.place === 'room' ? 'soon' : 'dry'
}

export function placeWords(s: SpoolState): string {
  if (s.problem !== null) return 'place not known'
  if (s.ended !== null) return s.ended
  if (s.place === 'sealed') return 'not opened'
  if (s.place === 'dryer') return `in ${s.drying?.dryer ?? 'a dryer'}`
  if (s.place === 'dry box') return 'in the dry box'
  return s.printer ? `on ${s.printer}, in room air` : 'out in the room'
}

export function spoolSentence(s: SpoolState): string {
  const w = s.water
  if (s.problem !== null) return `${s.problem}.`
  if (s.ended !== null)
    return `${s.tag} is ${s.ended}. It is offered nowhere; what was printed from it and how it dried still count.`
  if (s.place === 'sealed')
    return `${s.tag} was never opened here. Nobody knows how long it lay before it was sealed: dry it.`
  if (s.takesNoWater) return `${s.material} takes up no water: it needs no drying.`
  if (w === null) return `How ${s.material} takes up water is not known; enter it under Equip, Materials.`
  const stays = s.place === 'dry box' ? w.inBox : w.inRoom
  if (w.wound > w.printable)
    return (
      `${s.tag} is too wet: about ${water(w.wound)} of water, ${s.material} prints cleanly up to ` +
      `${water(w.printable)}.`
    )
  if (s.place === 'dryer')
    return (
      `${s.tag} is in ${s.drying?.dryer ?? 'a dryer'} at ${s.drying?.setC ?? '?'} °C, about ` +
      `${water(w.wound)} left.`
    )
  if (stays.woundH >= FOR_GOOD_H && stays.strandH >= FOR_GOOD_H)
    return `${s.tag} is dry and stays dry ${placeWords(s)}.`
  if (w.strand > w.printable)
    return `${s.tag} is dry by the estimate for about ${hours(stays.woundH)}; its outer turns are not.`
  return (
    `${s.tag} stays dry ${placeWords(s)} for about ${hours(stays.woundH)}; a single strand for ` +
    `${hours(stays.strandH)}.`
  )
}

export function leftWords(min: number): string {
  if (min <= 0) return 'done'
  return min < 90
    ? `${Math.ceil(min)} min to go`
    : `${Math.floor(min / 60)} h ${String(Math.round(min % 60)).padStart(2, '0')} min to go`
}
