/** Length of an arc (rules 22 to 24). All in mm; I and J are offsets of the centre from the start, R a length. */
interface Point {
  x: number
  y: number
  z: number
}

/** A chord longer than the diameter by up to this is taken as half a turn, mm. */
const SHORTFALL_MM = 0.001

/** Path length in mm, or null when the words describe no arc. */
export function arcPath(
  from: Point,
  to: Point,
  i: number | null,
  j: number | null,
  r: number | null,
  clockwise: boolean,
): number | null {
  let flat: number | null = null
  if (r !== null) flat = byRadius(from, to, r)
  else if (i !== null || j !== null) flat = byCentre(from, to, i ?? 0, j ?? 0, clockwise)
  if (flat === null) return null
  const dz = to.z - from.z
  return Math.sqrt(flat * flat + dz * dz)
}

function byRadius(from: Point, to: Point, r: number): number | null {
  const chord = Math.hypot(to.x - from.x, to.y - from.y)
  const radius = Math.abs(r)
  if (chord === 0 || radius < chord / 2 - SHORTFALL_MM) return null
  if (radius <= chord / 2) return radius * Math.PI
  const turn = 2 * Math.asin(chord / (2 * radius))
  return radius * (r > 0 ? turn : 2 * Math.PI - turn)
}

function byCentre(from: Point, to: Point, i: number, j: number, clockwise: boolean): number | null {
  const radius = Math.hypot(i, j)
  if (radius === 0) return null
  if (to.x === from.x && to.y === from.y) return radius * 2 * Math.PI
  const start = Math.atan2(-j, -i)
  const end = Math.atan2(to.y - from.y - j, to.x - from.x - i)
  let swept = clockwise ? start - end : end - start
  while (swept <= 0) swept += 2 * Math.PI
  while (swept > 2 * Math.PI) swept -= 2 * Math.PI
  return radius * swept
}
