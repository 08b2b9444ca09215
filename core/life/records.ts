/**
 * What the log of a nozzle says of its life, in kg of wear mass (fibre weighted by abrasivity). A gauge that finds it
 * past its limit says that the life ended somewhere since the gauge before: between two uses. One that never was found
 * past has lived at least to its last gauge; what it did after that nobody has seen, so it counts to there.
 * Left out: one that came used (its life began elsewhere), and one that no gauge followed.
 */
import { InputError, need, needIfKnown } from '../numeric'
import { BORE_MM, NOMINAL_MM, usualFlareMm, WEAR_KG, type BoreObservation, type RetireRules } from '../wear'
import type { LifeRecord } from './weibull'

export interface NozzleLife {
  wasUsed: boolean
  isRetired: boolean
  /** It was retired when its forecast gave it at least the accepted chance of being past its limit. */
  isOnForecast: boolean
  /** Gauges in their order: past its limit, within, or not to be told (null). */
  gauges: readonly { wearKg: number; isPast: boolean | null }[]
}

/** How the life of a nozzle stands. */
export const LIFE_ENDS = [
  'found past its limit',
  'in service',
  'retired within its limit',
  'retired on forecast',
  'came used',
  'not gauged since it was new',
] as const
export type LifeEnd = (typeof LIFE_ENDS)[number]

/** The record of one life (null: it tells nothing), and how it stands. */
export function lifeRecordOf(n: NozzleLife): { end: LifeEnd; record: LifeRecord | null } {
  for (const g of n.gauges) need('wearKg', g.wearKg, ...WEAR_KG, 'kg')
  if (n.wasUsed) return { end: 'came used', record: null }
  const to = n.gauges.find(g => g.isPast === true && g.wearKg > 0)?.wearKg
  const within = n.gauges.filter(g => g.isPast === false && (to === undefined || g.wearKg < to))
  const from = Math.max(0, ...within.map(g => g.wearKg))
  if (to !== undefined) return { end: 'found past its limit', record: { kind: 'between', from, to } }
  if (from === 0) return { end: 'not gauged since it was new', record: null }
  const record: LifeRecord = { kind: 'survived', until: from }
  if (!n.isRetired) return { end: 'in service', record }
  return { end: n.isOnForecast ? 'retired on forecast' : 'retired within its limit', record }
}

/**
 * Whether a gauge finds a nozzle past its limit: the narrowest bore, or the tip. Pins that have the limit between them
 * do not tell; a picture reads the mouth, which is wider than the bore by the flare that is usual. mm.
 */
export function foundPast(
  rules: RetireRules,
  nominalMm: number,
  bore: BoreObservation | null,
  tipLossMm: number | null,
): boolean | null {
  need('nominalMm', nominalMm, ...NOMINAL_MM, 'mm')
  needIfKnown('tipLossMm', tipLossMm, -100, 100, 'mm')
  const { boreLimitMm, tipLossLimitMm } = rules
  needIfKnown('boreLimitMm', boreLimitMm, ...BORE_MM, 'mm')
  needIfKnown('tipLossLimitMm', tipLossLimitMm, 0, 100, 'mm')
  const byBore = bore === null || boreLimitMm === null ? null : borePast(bore, boreLimitMm, nominalMm)
  const byTip = tipLossMm === null || tipLossLimitMm === null ? null : tipLossMm >= tipLossLimitMm
  if (byBore === true || byTip === true) return true
  // the rule that most nozzles end by must have been looked at
  return boreLimitMm === null ? byTip : byBore
}

function borePast(o: BoreObservation, limitMm: number, nominalMm: number): boolean | null {
  if (o.kind === 'pins') {
    needIfKnown('goMm', o.goMm, ...BORE_MM, 'mm')
    needIfKnown('noGoMm', o.noGoMm, ...BORE_MM, 'mm')
    if (o.goMm !== null && o.goMm >= limitMm) return true
    return o.noGoMm !== null && o.noGoMm <= limitMm ? false : null
  }
  need('valueMm', o.valueMm, ...BORE_MM, 'mm')
  return o.valueMm - (o.kind === 'picture' ? usualFlareMm(nominalMm) : 0) >= limitMm
}

/** A unit that reached its limit, on the probability plot: its use and the share that has failed by then. */
export interface PlotPoint {
  /** Which of the records. */
  index: number
  at: number
  from: number | null
  share: number
}

/**
 * Plotting positions: by modified Kaplan-Meier, which without survivors are the median ranks (i − 0.3)/(n + 0.4). An
 * interval is drawn whole and ranked by its middle. Source: NIST/SEMATECH e-Handbook, section 8.2.1.5 (from memory).
 */
export function plotPoints(records: readonly LifeRecord[]): PlotPoint[] {
  const useOf = (r: LifeRecord) => {
    if (r.kind === 'failed') return r.at
    return r.kind === 'survived' ? r.until : (r.from + r.to) / 2
  }
  const list = records
    .map((r, index) => ({ r, index, at: useOf(r) }))
    .sort((a, b) => a.at - b.at || Number(a.r.kind === 'survived') - Number(b.r.kind === 'survived'))
  for (const l of list) if (!(l.at > 0 && Number.isFinite(l.at))) throw new InputError('records', l.at, 'lives above 0')
  const n = list.length
  let left = (n + 0.7) / (n + 0.4)
  const out: PlotPoint[] = []
  for (const [i, { r, index, at }] of list.entries()) {
    if (r.kind === 'survived') continue
    left *= (n - i - 0.3) / (n - i + 0.7)
    out.push({ index, at, from: r.kind === 'between' ? r.from : null, share: 1 - left })
  }
  return out
}
