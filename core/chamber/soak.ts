/**
 * How long to soak before a print. With a fitted warm-up of this printer, scaled to the bed of today by
 * θ = (T∞ − room)/(bed − room); without one, the practice minimum. A large or flat part asks for more.
 * Source of the minimum and of the part's share: common practice, no source.
 */
import { need, needIfKnown, needOne } from '../numeric'
import { CHAMBER_C, timeToHold, type WarmUp } from './warm-up'

/** Soak where nothing better is known, min; common practice, no source. */
export const PRACTICE_SOAK_MIN = 20
/** Parts by how long they ask to be soaked. */
export const PART_SIZES = ['small', 'large or flat'] as const
export type PartSize = (typeof PART_SIZES)[number]
const PART_MINUTES: Record<PartSize, number> = { 'small': 0, 'large or flat': 15 }

/** A warm-up as recorded: with a bed (passive) or a chamber heater's setpoint (active) at that time. */
export interface RecordedWarmUp extends WarmUp {
  bedC: number
  roomC: number
  chamberSetC: number | null
}

export interface Soak {
  basis: 'warm-up record' | 'practice'
  /** Minutes from now; Infinity when the target is never reached. */
  minutes: number
  /** Where the air would settle; null without a record. */
  settlesC: number | null
  /** Bed that would bring the target; null without a record, or when the air is heated by its own heater. */
  bedForTargetC: number | null
}

/** Chamber air `targetC` with the bed at `bedC` from `nowC`; `targetC` null when the filament asks for none. */
export function soakPlan(q: {
  targetC: number | null
  bedC: number
  nowC: number
  roomC: number
  part: PartSize
  chamberSetC: number | null
  record: RecordedWarmUp | null
}): Soak {
  need('bedC', q.bedC, 0, 300, '°C')
  need('roomC', q.roomC, -10, 50, '°C')
  need('nowC', q.nowC, ...CHAMBER_C, '°C')
  if (q.targetC !== null) need('targetC', q.targetC, ...CHAMBER_C, '°C')
  if (q.chamberSetC !== null) need('chamberSetC', q.chamberSetC, ...CHAMBER_C, '°C')
  needOne('part', q.part, PART_SIZES)
  if (q.record)
    for (const k of ['bedC', 'roomC', 'startC', 'finalC', 'tauS', 'delayS'] as const)
      need(`record.${k}`, q.record[k], -1e6, 1e9)
  if (q.record) needIfKnown('record.chamberSetC', q.record.chamberSetC, ...CHAMBER_C, '°C')
  const extra = PART_MINUTES[q.part]
  const r = q.record
  if (r === null || q.targetC === null || (r.chamberSetC === null && r.bedC - r.roomC < 10))
    return { basis: 'practice', minutes: PRACTICE_SOAK_MIN + extra, settlesC: null, bedForTargetC: null }
  if (r.chamberSetC !== null) {
    const settlesC = q.chamberSetC === null ? q.roomC : q.chamberSetC + (r.finalC - r.chamberSetC)
    return {
      basis: 'warm-up record',
      minutes: timeToHold({ ...r, startC: q.nowC, finalC: settlesC, delayS: 0 }, q.targetC) / 60 + extra,
      settlesC,
      bedForTargetC: null,
    }
  }
  const theta = (r.finalC - r.roomC) / (r.bedC - r.roomC)
  const settlesC = q.roomC + theta * (q.bedC - q.roomC)
  const delay = q.nowC > q.roomC + 5 ? 0 : r.delayS
  return {
    basis: 'warm-up record',
    minutes: timeToHold({ startC: q.nowC, finalC: settlesC, tauS: r.tauS, delayS: delay }, q.targetC) / 60 + extra,
    settlesC,
    bedForTargetC: q.roomC + (q.targetC - q.roomC) / theta,
  }
}
