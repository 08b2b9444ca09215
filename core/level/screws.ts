/**
 * Which screw of a bed by how much: the plane is brought to where it should be by the height it has over each screw,
 * divided by the pitch of its thread. mm, turns. Source: geometry; pitches of coarse threads by ISO 261, from memory.
 */
import { InputError, need, needOne } from '../numeric'
import { HEIGHT_MM, PLACE_MM, planeAt, type Place, type Plane } from './plane'

/** What one turn of a screw can move, mm. */
export const PITCH_MM = [0.2, 2] as const
/** Coarse threads by ISO 261, mm per turn, from memory. */
export const COARSE_PITCH_MM = { M3: 0.5, M4: 0.7, M5: 0.8 } as const
/** Either side of a bed, mm. */
export const BED_SIDE_MM = [50, 2000] as const
/** No more screws than this carry a bed; none: it is fixed. */
export const MOST_SCREWS = 9
/** What a clockwise turn does to the bed there, as seen by who turns it. */
export const CLOCKWISE = ['lowers', 'raises'] as const
export type Clockwise = (typeof CLOCKWISE)[number]

/** A bed as it is screwed down; places from its front left corner. */
export interface Bed {
  widthMm: number
  depthMm: number
  screws: readonly ({ name: string } & Place)[]
  pitchMm: number
  clockwise: Clockwise
}

/** What a bed can lean, mm per mm: from one end of its heights to the other within 10 mm. */
const SLOPE = [-1, 1] as const
/** A turn is told to so many parts, and less than half of one is left. */
export const PARTS_OF_TURN = 16

export interface ScrewTurn {
  name: string
  xMm: number
  yMm: number
  /** How far the bed must go up there; below 0: down. */
  upMm: number
  /** The nearest sixteenths of a turn that do it, and which way; 0: leave it. */
  parts: number
  way: 'clockwise' | 'anticlockwise'
}

/** Throws InputError for a bed that is none. */
export function checkBed(bed: Bed): void {
  need('widthMm', bed.widthMm, ...BED_SIDE_MM, 'mm')
  need('depthMm', bed.depthMm, ...BED_SIDE_MM, 'mm')
  need('pitchMm', bed.pitchMm, ...PITCH_MM, 'mm')
  needOne('clockwise', bed.clockwise, CLOCKWISE)
  if (bed.screws.length > MOST_SCREWS) throw new InputError('screws', bed.screws.length, `at most ${MOST_SCREWS}`)
  if (bed.screws.length > 0 && bed.screws.length < 3)
    throw new InputError('screws', bed.screws.length, 'none, or three and more')
  for (const [i, s] of bed.screws.entries()) {
    need(`screws.${i}.xMm`, s.xMm, PLACE_MM[0], bed.widthMm - PLACE_MM[0], 'mm')
    need(`screws.${i}.yMm`, s.yMm, PLACE_MM[0], bed.depthMm - PLACE_MM[0], 'mm')
  }
}

/**
 * What each screw is turned by so that a plane comes to `toMm`, the height wanted over all of them; null: to their own
 * mean, which keeps the Z number as it is. Heights −5 to 5 mm. Throws InputError.
 */
export function screwTurns(plane: Plane, bed: Bed, toMm: number | null): ScrewTurn[] {
  checkBed(bed)
  for (const k of ['x0Mm', 'y0Mm'] as const) need(`plane.${k}`, plane[k], ...PLACE_MM, 'mm')
  need('plane.z0Mm', plane.z0Mm, ...HEIGHT_MM, 'mm')
  for (const k of ['slopeX', 'slopeY'] as const) need(`plane.${k}`, plane[k], ...SLOPE)
  if (toMm !== null) need('toMm', toMm, ...HEIGHT_MM, 'mm')
  const heights = bed.screws.map(s => planeAt(plane, s))
  const to = toMm ?? heights.reduce((s, h) => s + h, 0) / Math.max(1, heights.length)
  return bed.screws.map((s, i) => {
    const upMm = to - heights[i]!
    const raising = bed.clockwise === 'raises' ? 'clockwise' : 'anticlockwise'
    const lowering = bed.clockwise === 'raises' ? 'anticlockwise' : 'clockwise'
    return {
      ...s,
      upMm,
      parts: Math.round((Math.abs(upMm) / bed.pitchMm) * PARTS_OF_TURN),
      way: upMm > 0 ? raising : lowering,
    }
  })
}

/** How far a screw really moves the bed there, mm, when it is turned as told. */
export const movedMm = (t: ScrewTurn, bed: Pick<Bed, 'pitchMm'>): number =>
  Math.sign(t.upMm) * (t.parts / PARTS_OF_TURN) * bed.pitchMm

/** "1 3/8 turn anticlockwise"; "leave it". `parts` are sixteenths. */
export function turnWords({ parts, way }: Pick<ScrewTurn, 'parts' | 'way'>): string {
  need('parts', parts, 0, 1e6)
  if (parts === 0) return 'leave it'
  const whole = Math.floor(parts / PARTS_OF_TURN)
  let [up, down] = [parts % PARTS_OF_TURN, PARTS_OF_TURN]
  while (up > 0 && up % 2 === 0) [up, down] = [up / 2, down / 2]
  const share = up === 0 ? '' : `${up}/${down}`
  const turns = [...(whole > 0 ? [String(whole)] : []), ...(share ? [share] : [])].join(' ')
  return `${turns} ${whole > 1 || (whole === 1 && up > 0) ? 'turns' : 'turn'} ${way}`
}
