/**
 * How long to soak before a print. Where the air comes to rest is told by the limits (`settlesAt`), the same for
 * everybody; how fast, by a fitted warm-up of this printer, and never less than the practice minimum. A large or flat
 * part asks for more. Source of the minimum and of the part's share: common practice, no source.
 */
import { gradeOf, type Grade } from '../limits'
import { need, needIfKnown, needOne } from '../numeric'
import { CHAMBER_C, timeToHold, type WarmUp } from './warm-up'

/** Soak where nothing better is known, min; common practice, no source. */
export const PRACTICE_SOAK_MIN = 20
/** Parts by how long they ask to be soaked. */
export const PART_SIZES = ['small', 'large or flat'] as const
export type PartSize = (typeof PART_SIZES)[number]
const PART_MINUTES: Record<PartSize, number> = { 'small': 0, 'large or flat': 15 }
/** It holds when it is within so many °C of its target. */
export const HOLDS_WITHIN_C = 2

export interface Soak {
  basis: 'warm-up record' | 'practice'
  /** Minutes from now; Infinity when the target is never reached. */
  minutes: number
  /** Whether the target is reached: `just` when that lies within what is known of the air; null when none is asked. */
  reaches: Grade | null
}

/**
 * Chamber air to `targetC` (null when the filament asks for none), from `nowC`, coming to rest at `settlesC` known to
 * `u90` (null: not known). `record`: how fast this printer warms up.
 */
export function soakPlan(q: {
  targetC: number | null
  nowC: number
  roomC: number
  part: PartSize
  settles: { settlesC: number; u90: number } | null
  record: Pick<WarmUp, 'tauS' | 'delayS'> | null
}): Soak {
  need('roomC', q.roomC, -10, 50, '°C')
  need('nowC', q.nowC, ...CHAMBER_C, '°C')
  if (q.targetC !== null) need('targetC', q.targetC, ...CHAMBER_C, '°C')
  needOne('part', q.part, PART_SIZES)
  needIfKnown('settlesC', q.settles?.settlesC, ...CHAMBER_C, '°C')
  needIfKnown('u90', q.settles?.u90, 0, 1000, '°C')
  if (q.record) {
    need('record.tauS', q.record.tauS, 1e-9, 1e9, 's')
    need('record.delayS', q.record.delayS, -1e9, 1e9, 's')
  }
  const extra = PART_MINUTES[q.part]
  const practice = { basis: 'practice' as const, minutes: PRACTICE_SOAK_MIN + extra }
  if (q.targetC === null || q.settles === null) return { ...practice, reaches: null }
  const { settlesC, u90 } = q.settles
  const reaches = gradeOf(settlesC - (q.targetC - HOLDS_WITHIN_C), u90)
  if (reaches === 'short') return { basis: q.record ? 'warm-up record' : 'practice', minutes: Infinity, reaches }
  if (q.record === null) return { ...practice, reaches }
  // warm already: its heaters are on, and nothing is waited for
  const delayS = q.nowC > q.roomC + 5 ? 0 : q.record.delayS
  // where it is not sure to get there, until it is as warm as it gets
  const upTo = Math.min(q.targetC, settlesC)
  const seconds = timeToHold({ startC: q.nowC, finalC: settlesC, tauS: q.record.tauS, delayS }, upTo, HOLDS_WITHIN_C)
  const minutes = seconds / 60
  // air that is warm is not yet a part and walls that are: never less than practice
  return minutes > PRACTICE_SOAK_MIN
    ? { basis: 'warm-up record', minutes: minutes + extra, reaches }
    : { ...practice, reaches }
}
