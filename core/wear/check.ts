/** What a history of bore readings may hold; refused with the field named. */
import { InputError, need, needIfKnown } from '../numeric'
import type { BoreHistory, BoreObservation } from './types'

/** Ranges, mm and kg. The doors take theirs from here. */
export const BORE_MM = [0.01, 5] as const
/** Sizes of pins, and of bores that are gauged, mm. */
export const GAUGED_MM = [0.05, 3] as const
/** Standard uncertainty of a bore reading, mm. */
export const BORE_U_MM = [1e-5, 1] as const
/** Nominal bore of any nozzle, mm. */
export const NOMINAL_MM = [0.05, 3] as const
/** Wear mass, kg. */
export const WEAR_KG = [0, 1e6] as const

/** Pictures of one nozzle: what a group of them has room for. */
export const MOST_PICTURES = 500

export function checkReading(o: BoreObservation): void {
  need('wearKg', o.wearKg, ...WEAR_KG, 'kg')
  need('uMm', o.uMm, ...BORE_U_MM, 'mm')
  if (o.kind === 'picture') need('uSharedMm', o.uSharedMm, ...BORE_U_MM, 'mm')
  if (o.kind !== 'pins') {
    need('valueMm', o.valueMm, ...BORE_MM, 'mm')
    return
  }
  needIfKnown('uRandomMm', o.uRandomMm, 0, BORE_U_MM[1], 'mm')
  needIfKnown('goUMm', o.goUMm, ...BORE_U_MM, 'mm')
  needIfKnown('noGoUMm', o.noGoUMm, ...BORE_U_MM, 'mm')
  if (o.goMm === null && o.noGoMm === null) throw new InputError('goMm', null, 'at least one of go and no-go')
  if (o.goMm !== null) need('goMm', o.goMm, ...BORE_MM, 'mm')
  if (o.noGoMm !== null) need('noGoMm', o.noGoMm, ...BORE_MM, 'mm')
  if (o.goMm !== null && o.noGoMm !== null && o.goMm >= o.noGoMm)
    throw new InputError('goMm', o.goMm, `smaller than the no-go of ${o.noGoMm}`)
}

export function checkHistory(h: BoreHistory): void {
  need('nominalMm', h.nominalMm, ...NOMINAL_MM, 'mm')
  if (h.doubt) {
    need('doubt.misread', h.doubt.misread, 0, 0.5)
    need('doubt.otherBore', h.doubt.otherBore, 0, 0.5)
  }
  for (const o of h.observations) checkReading(o)
  const pictures = h.observations.filter(o => o.kind === 'picture').length
  if (pictures > MOST_PICTURES) throw new InputError('observations', pictures, `at most ${MOST_PICTURES} pictures`)
}
