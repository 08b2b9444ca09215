/**
 * How level and how flat a bed is: tilt, which screws take out; warp, which they do not; what is left when the screws
 * are turned. mm. What counts as level is common practice, no source.
 */
import { InputError, need, needIfKnown, needOne } from '../numeric'
import { listed, mm as mmWords } from '../words'
import { MESH_SIDE } from './mesh-text'
import { fitPlane, HEIGHT_MM, PLACE_MM, planeAt, type BedPoint, type Place, type Plane } from './plane'
import { checkBed, movedMm, screwTurns, type Bed, type ScrewTurn } from './screws'

/** From the highest to the lowest point: a first layer of 0.3 mm lies on it by itself. */
export const LEVEL_MM = 0.1
/** More than this no first layer follows, whatever the printer evens out. */
export const FOLLOWS_MM = 0.3
/** What one reading of a feeler is good for, mm: the leaf, and the hand that feels it. */
export const FEELER_U_MM = 0.02
/** Gaps by feeler: what goes under the nozzle. */
export const GAP_FELT_MM = [0, 5] as const
/** What a bed can have when it is measured, °C. */
export const LEVEL_BED_C = [-50, 400] as const
/** A bed cooler than a job's by more than this was levelled cold, °C. */
const COLD_C = 15
/** Rounds of a feeler. */
export const MOST_ROUNDS = 6
/** Points of a round. */
export const FEELER_POINTS = [3, 25] as const

/** Three points and more by feeler: one round, or one after the other with screws turned between. */
export interface FeelerLevel {
  how: 'feeler'
  /** The gap that is wanted at each of them. */
  wantedMm: number
  rounds: readonly (readonly (Place & { gapMm: number })[])[]
}
/** A mesh that the printer's probe made; where it lies on the bed, and which of its rows is in front. */
export interface MeshLevel {
  how: 'mesh'
  rows: readonly (readonly (number | null)[])[]
  leftMm: number
  rightMm: number
  frontMm: number
  backMm: number
  firstRow: 'front' | 'back'
}
export type LevelMeasured = FeelerLevel | MeshLevel

/** Throws InputError for a measure that is none. */
export function checkLevel(m: LevelMeasured): void {
  needOne('how', m.how, ['feeler', 'mesh'])
  if (m.how === 'feeler') {
    need('wantedMm', m.wantedMm, ...GAP_FELT_MM, 'mm')
    need('rounds', m.rounds.length, 1, MOST_ROUNDS)
    for (const [r, round] of m.rounds.entries()) {
      if (round.length < FEELER_POINTS[0] || round.length > FEELER_POINTS[1])
        throw new InputError(`rounds.${r}`, round.length, `${FEELER_POINTS.join(' to ')} points`)
      for (const [i, p] of round.entries()) need(`rounds.${r}.${i}.gapMm`, p.gapMm, ...GAP_FELT_MM, 'mm')
    }
    return
  }
  for (const k of ['leftMm', 'rightMm', 'frontMm', 'backMm'] as const) need(k, m[k], ...PLACE_MM, 'mm')
  if (m.rightMm <= m.leftMm) throw new InputError('rightMm', m.rightMm, `more than the left edge, ${m.leftMm} mm`)
  if (m.backMm <= m.frontMm) throw new InputError('backMm', m.backMm, `more than the front edge, ${m.frontMm} mm`)
  needOne('firstRow', m.firstRow, ['front', 'back'])
  const columns = m.rows[0]?.length ?? 0
  if (m.rows.some(r => r.length !== columns)) throw new InputError('rows', columns, 'rows of the same length')
  need('rows', m.rows.length, ...MESH_SIDE)
  need('rows.0', columns, ...MESH_SIDE)
  for (const [r, row] of m.rows.entries())
    for (const [c, z] of row.entries()) needIfKnown(`rows.${r}.${c}`, z, ...HEIGHT_MM, 'mm')
}

/** A round by feeler as heights: a wider gap is a lower bed. */
const heights = (m: FeelerLevel, round: FeelerLevel['rounds'][number]): BedPoint[] =>
  round.map(({ xMm, yMm, gapMm }) => ({ xMm, yMm, zMm: m.wantedMm - gapMm }))

/** A mesh as heights at their places, mm; holes are left out. Throws InputError as `checkLevel`. */
export function meshPoints(m: MeshLevel): BedPoint[] {
  checkLevel(m)
  const columns = m.rows[0]!.length
  const along = (i: number, n: number, from: number, to: number) => from + ((to - from) * i) / (n - 1)
  return m.rows.flatMap((row, r) => {
    const place = m.firstRow === 'front' ? r : m.rows.length - 1 - r
    const yMm = along(place, m.rows.length, m.frontMm, m.backMm)
    return row.flatMap((zMm, c) => (zMm === null ? [] : [{ xMm: along(c, columns, m.leftMm, m.rightMm), yMm, zMm }]))
  })
}

export interface LevelFound {
  points: BedPoint[]
  plane: Plane
  /** What is left of each point when the plane is taken off, mm. */
  residualMm: number[]
  /** From the highest to the lowest point, as it is. */
  rangeMm: number
  /** What the plane alone makes from one corner of the bed to another, and which corner is highest. */
  tiltMm: number
  highCorner: string
  /** From highest to lowest when the plane is taken off: no screw changes that. Null: three points cannot tell. */
  warpMm: number | null
  screws: ScrewTurn[]
  /** From highest to lowest when the screws are turned as told. */
  leftMm: number
}

/**
 * What a measure says of a bed, by its last round. Ranges as in `checkLevel` and `checkBed`; throws InputError.
 */
export function levelFound(m: LevelMeasured, bed: Bed): LevelFound {
  checkLevel(m)
  checkBed(bed)
  const points = m.how === 'mesh' ? meshPoints(m) : heights(m, m.rounds.at(-1)!)
  const plane = fitPlane(points)
  const residualMm = points.map(p => p.zMm - planeAt(plane, p))
  // a mesh tells heights against each other; a gap is against the nozzle itself
  const told = screwTurns(plane, bed, m.how === 'mesh' ? null : 0)
  const rangeMm = spread(points.map(p => p.zMm))
  // what is even is left, and turning all of them for nothing that is seen; off the gap is a matter of Z
  const idle = rangeMm <= LEVEL_MM || (m.how === 'mesh' && leftOf(points, told, bed) >= rangeMm - FEELER_U_MM)
  const screws = idle ? told.map(s => ({ ...s, parts: 0 })) : told
  return {
    points,
    plane,
    residualMm,
    rangeMm,
    tiltMm: Math.abs(plane.slopeX) * bed.widthMm + Math.abs(plane.slopeY) * bed.depthMm,
    highCorner: `${plane.slopeY < 0 ? 'front' : 'back'} ${plane.slopeX < 0 ? 'left' : 'right'}`,
    warpMm: points.length === 3 ? null : spread(residualMm),
    screws,
    leftMm: leftOf(points, screws, bed),
  }
}

const spread = (list: readonly number[]) => Math.max(...list) - Math.min(...list)

/** The points again after the screws are turned as told: their rounding is a plane of its own. */
function leftOf(points: readonly BedPoint[], screws: readonly ScrewTurn[], bed: Bed): number {
  if (screws.length < 3) return spread(points.map(p => p.zMm))
  const moved = fitPlane(screws.map(s => ({ xMm: s.xMm, yMm: s.yMm, zMm: movedMm(s, bed) })))
  return spread(points.map(p => p.zMm + planeAt(moved, p)))
}

/** Where on the bed a place is, in words: "back left", "middle". */
export function placeWords(at: Place, bed: Pick<Bed, 'widthMm' | 'depthMm'>): string {
  const third = (v: number, of: number) => Math.min(2, Math.max(0, Math.floor((v / of) * 3)))
  const y = ['front', '', 'back'][third(at.yMm, bed.depthMm)]!
  const x = ['left', '', 'right'][third(at.xMm, bed.widthMm)]!
  return [y, x].filter(Boolean).join(' ') || 'middle'
}

export interface LevelVerdict {
  mark: 'fine' | 'look'
  /** What is so, with its numbers. */
  says: string
  /** What to do; empty when nothing. */
  action: string
}

/**
 * What is to be done about a bed: nothing, the screws, or the plate itself. `bedC` is what it had when it was measured,
 * `jobC` what the last job asked of it, °C, null when nothing tells: cold it says little of the bed at work.
 */
export function levelVerdict(
  m: LevelMeasured,
  found: LevelFound,
  bed: Bed,
  { bedC, jobC }: { bedC: number; jobC: number | null },
): LevelVerdict {
  need('bedC', bedC, ...LEVEL_BED_C, '°C')
  needIfKnown('jobC', jobC, ...LEVEL_BED_C, '°C')
  const mm = (v: number) => mmWords(v, 2)
  const cold = jobC !== null && bedC < jobC - COLD_C
  const warp = found.warpMm ?? 0
  const turn = found.screws.filter(s => s.parts > 0)
  const high = found.points[found.residualMm.indexOf(Math.max(...found.residualMm))]!
  const offMm = m.how === 'feeler' ? found.points.reduce((a, p) => a + p.zMm, 0) / found.points.length : 0
  const look = (says: string, action: string): LevelVerdict => ({ mark: 'look', says, action })
  if (warp > FOLLOWS_MM)
    return look(
      `Warped by ${mm(warp)}, highest at the ${placeWords(high, bed)}: no screw takes that out.`,
      'Look what lies under the sheet, then change the plate or keep small parts on its flat end',
    )
  if (found.rangeMm > LEVEL_MM) {
    const says = `${mm(found.rangeMm)} from the highest to the lowest point, ${found.highCorner} high.`
    if (bed.screws.length === 0) return look(says, 'No screw is entered: shim it, or let the printer even it out')
    if (turn.length === 0 || found.leftMm >= found.rangeMm - FEELER_U_MM)
      return look(says, 'The screws take no more out: that much the printer must even out')
    const names = listed(
      turn.map(s => s.name),
      'and',
    )
    return look(says, `Turn ${names}; ${mm(found.leftMm)} is left then`)
  }
  if (Math.abs(offMm) > LEVEL_MM)
    return look(
      `Even, but ${mm(Math.abs(offMm))} ${offMm < 0 ? 'too low' : 'too high'} under the nozzle.`,
      `${offMm < 0 ? 'Bring the nozzle nearer' : 'Raise the nozzle'} by that with Z: the screws stay`,
    )
  if (cold) return look(`Level to ${mm(found.rangeMm)}, but at ${bedC} °C: the last job had ${jobC}.`, 'Level it hot')
  const tells = found.warpMm === null ? ' Three points tell nothing of what lies between.' : ''
  return { mark: 'fine', says: `Level to ${mm(found.rangeMm)} at ${bedC} °C.${tells}`, action: '' }
}
