/** What is due of spools, dryings, soaks and parts that cool: one reading of Prepare for the Floor and the list. */
import type { SpoolDryness } from '#core/drying'
import {
  dueOfCoolDown,
  dueOfDrying,
  dueOfLowSpool,
  dueOfSoak,
  dueOfSpoolOut,
  dueOfUnknownSpool,
  dueOfWetSpool,
  type Due,
} from '#core/schedule'
import type { Prepare } from './answers/prepare'
import type { SpoolState } from './answers/spools'

export type Dryness = SpoolDryness | 'soon'
/** "soon" when less than this stays. */
const SOON_H = 4
export function drynessOf(s: SpoolState): Dryness {
  const w = s.water
  if (w === null || s.ended !== null || w.dryness === 'unknown') return 'unknown'
  if (w.dryness === 'wet') return 'wet'
  return Math.min(w.inRoom.strandH, w.inRoom.woundH) < SOON_H && s.place === 'room' ? 'soon' : w.dryness
}

/** `printer`: what it stands at, in words; a dryer too. */
export interface PreparedDue {
  printer: string | null
  due: Due
}

function ofDryness(s: SpoolState): Due | null {
  if (s.water === null) return null
  const dry = drynessOf(s)
  if (dry === 'wet') return dueOfWetSpool(s.tag, s.water.low, s.water.usual)
  return dry === 'unknown' ? dueOfUnknownSpool(s.tag) : null
}

/** What Prepare adds to the bench: wet spools and low ones on printers, dryings, soaks and coolings that are over. */
export function preparedDue(
  p: Pick<Prepare, 'spools' | 'soaks' | 'coolDowns'>,
  left: (spoolId: number) => { leftG: number; netG: number } | null,
  nowMs: number,
): PreparedDue[] {
  const line = (printer: string | null, due: Due | null): PreparedDue[] => (due === null ? [] : [{ printer, due }])
  const loaded = p.spools.flatMap(s => {
    if (s.printer === null) return []
    const row = left(s.id)
    const low = row ? dueOfLowSpool(s.tag, row.leftG, row.netG) : null
    return [...line(s.printer, ofDryness(s)), ...line(s.printer, low)]
  })
  const dried = p.spools.flatMap(s =>
    s.drying === null
      ? []
      : line(s.drying.dryer, dueOfDrying(s.tag, Date.parse(s.drying.from), s.drying.plannedH, nowMs)),
  )
  const soaked = p.soaks
    .filter(s => s.to === null)
    .flatMap(s => line(s.printer, dueOfSoak(s.printer, Date.parse(s.from), s.minutes, nowMs)))
  const cooled = p.coolDowns
    .filter(c => c.to === null)
    .flatMap(c => line(c.printer, dueOfCoolDown(c.name, c.takeOff, Date.parse(c.from), c.minutes, nowMs)))
  return [...loaded, ...dried, ...soaked, ...cooled]
}

/** Spools that lie in room air and on no printer. */
export function spoolsOut(p: Pick<Prepare, 'spools'>): PreparedDue[] {
  return p.spools.flatMap(s => {
    if (s.place !== 'room' || s.printer !== null || s.ended !== null || s.water === null) return []
    const due = dueOfSpoolOut(s.tag, Math.max(0, s.water.inRoom.woundH))
    return due === null ? [] : [{ printer: null, due }]
  })
}
