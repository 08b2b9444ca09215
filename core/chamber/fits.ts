/**
 * What one warm-up record tells of an enclosure, and what it cannot: how much of the heat leaves through the walls and
 * how much through gaps. Both ways are kept, and an answer is the span of them. °C, W, mm², s. Common practice, no
 * source.
 */
import { need } from '../numeric'
import { AS_DRAWN, bedW, checkPlan, lossesAt, PLAN_RANGES, type EnclosurePlan, type Fit } from './balance'

/** A warm-up of the enclosure as it is, warmed by its bed alone: what its mean air came to, with its U. */
export interface WarmedUp {
  meanC: number
  u90: number
  bedC: number
  roomC: number
  tauS: number
}
/** The least, the middle and the most of the ways in which it may be. */
export interface Span {
  low: number
  mid: number
  high: number
}
/** Where what is lost beyond the drawing may go. */
export const FIT_WAYS = ['walls', 'gaps'] as const
export type FitWay = (typeof FIT_WAYS)[number]

/** Films and workmanship without any record: walls may let through so many times what is drawn. Common practice. */
const UNFITTED: readonly Fit[] = [
  { walls: 0.75, moreGapMm2: 0 },
  { walls: 1.35, moreGapMm2: 0 },
]

/**
 * Two readings of one record, made with the nozzle cold: all that is lost beyond (or under) what is drawn goes through
 * the walls, or through gaps. Null for a way that cannot be: walls as drawn lose more already, or gaps as drawn alone
 * do.
 */
export function fitBothWays(now: EnclosurePlan, record: WarmedUp): Record<FitWay, Fit | null> {
  checkPlan(now)
  checkRecord(record)
  const p: EnclosurePlan = { ...now, roomC: record.roomC, bed: { ...now.bed, setC: record.bedC }, heaterSetC: null }
  const gainW = bedW(p.bed, record.meanC)
  const drawn = lossesAt(p, record.meanC)
  const throughWalls = drawn.walls.reduce((a, w) => a + w.w, 0)
  const walls = (gainW - drawn.gapsW - drawn.ventW) / throughWalls
  // what leaves through a gap grows with its area
  const perMm2 = lossesAt({ ...p, gapMm2: 1 }, record.meanC).gapsW
  const moreGapMm2 = (gainW - drawn.totalW) / perMm2
  return {
    walls: walls >= WALLS_FIT[0] && walls <= WALLS_FIT[1] ? { walls, moreGapMm2: 0 } : null,
    gaps: moreGapMm2 >= -p.gapMm2 ? { walls: 1, moreGapMm2 } : null,
  }
}
/** Walls that would let through less or more than so many times what is drawn are drawn wrong. */
const WALLS_FIT = [0.1, 10] as const

function checkRecord(r: WarmedUp): void {
  need('record.roomC', r.roomC, ...PLAN_RANGES.roomC, '°C')
  need('record.bedC', r.bedC, r.roomC, PLAN_RANGES.bedC[1], '°C')
  need('record.meanC', r.meanC, r.roomC + 1, r.bedC, '°C')
  need('record.u90', r.u90, 0, 100, '°C')
  need('record.tauS', r.tauS, 1, 1e6, 's')
}

export interface Fits {
  /** What an answer spans. */
  all: Fit[]
  /** The middle of each way, as it is drawn. */
  ways: Record<FitWay, Fit | null>
  basis: 'both ways' | 'walls only' | 'gaps only' | 'no record' | 'record does not fit'
}
/** The ways in which the enclosure may be, each at both ends of what the record is known to. */
export function fitsOf(now: EnclosurePlan, record: WarmedUp | null): Fits {
  const drawn = { walls: AS_DRAWN, gaps: null }
  if (record === null) return { all: [...UNFITTED], ways: drawn, basis: 'no record' }
  const ways = fitBothWays(now, record)
  const ends = [record.meanC - record.u90, record.meanC + record.u90]
    .map(c => Math.min(record.bedC - 0.5, Math.max(record.roomC + 1, c)))
    .map(meanC => fitBothWays(now, { ...record, meanC }))
  const all = [ways, ...ends].flatMap(f => [f.walls, f.gaps]).filter(f => f !== null)
  if (all.length === 0) return { all: [...UNFITTED], ways: drawn, basis: 'record does not fit' }
  if (ways.walls && ways.gaps) return { all, ways, basis: 'both ways' }
  return { all, ways, basis: ways.gaps ? 'gaps only' : 'walls only' }
}

/** The way that the middle of an answer is told by. */
export const midOf = (fits: Fits): Fit => fits.ways.walls ?? fits.ways.gaps ?? AS_DRAWN

/** The span of several answers around the middle one. */
export const spanOf = (values: readonly number[], mid: number): Span => ({
  low: Math.min(mid, ...values),
  mid,
  high: Math.max(mid, ...values),
})
