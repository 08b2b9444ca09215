/**
 * A numerical cylinder: radial shells that exchange water with their neighbours and, the outermost, with the air.
 * Shells grow thinner towards the surface, where the water changes first. Between changes of the air the shells' own
 * decay modes carry the state forward exactly, however long the step; so a year of history costs one step per change.
 * Checked against Crank's solution for constant conditions; water is conserved to rounding.
 */
import { need, once, symmetricEigen } from '../numeric'

const SHELLS = 32
const OUTERMOST = 0.003
const GROWTH = 1.15

interface Modes {
  rates: Float64Array
  weights: Float64Array
  surface: Float64Array
}

/** Shell faces from the axis to the surface, in radii. */
function facesOf(): number[] {
  const thickness = Array.from({ length: SHELLS }, (_, i) => OUTERMOST * GROWTH ** i)
  const sum = thickness.reduce((a, b) => a + b, 0)
  const faces = [1]
  for (const t of thickness) faces.push(Math.max(0, faces[faces.length - 1]! - t / sum))
  faces[SHELLS] = 0
  return faces.reverse()
}

function modesOf(): Modes {
  const faces = facesOf()
  const volumes = Array.from({ length: SHELLS }, (_, i) => faces[i + 1]! ** 2 - faces[i]! ** 2)
  // halves the shell by volume
  const middle = Array.from({ length: SHELLS }, (_, i) => Math.sqrt((faces[i]! ** 2 + faces[i + 1]! ** 2) / 2))
  // conductance of the ring between two radii, steady radial flow: 2/ln(r2/r1), per unit of D·t/a²
  const between = Array.from({ length: SHELLS - 1 }, (_, i) => 2 / Math.log(middle[i + 1]! / middle[i]!))
  const toAir = 2 / Math.log(1 / middle[SHELLS - 1]!)
  const m = volumes.map((v, i) =>
    volumes.map((w, j) => {
      if (i === j) return ((between[i - 1] ?? 0) + (i === SHELLS - 1 ? toAir : between[i]!)) / v
      return Math.abs(i - j) === 1 ? -between[Math.min(i, j)]! / Math.sqrt(v * w) : 0
    }),
  )
  const { values, vectors } = symmetricEigen(m)
  const weights = vectors.map(q => q.reduce((s, x, j) => s + x * Math.sqrt(volumes[j]!), 0))
  return {
    rates: Float64Array.from(values),
    weights: Float64Array.from(weights.map(w => w * w)),
    // what of a mode's water leaves through the surface, per unit of D·t/a²
    surface: Float64Array.from(
      vectors.map((q, i) => (toAir * q[SHELLS - 1]!) / Math.sqrt(volumes[SHELLS - 1]!) / weights[i]!),
    ),
  }
}

const modes = once(modesOf)
/** A mode that has decayed by e to this power is below rounding. */
const GONE = 45

/** Water in the cylinder, wt%: the air's equilibrium at its surface, and what each decay mode holds above it. */
export interface Moisture {
  atAir: number
  above: Float64Array
}

/** Water contents that are worked with, wt%. */
export const WATER_WT = [0, 100] as const
const X = [0, Number.MAX_VALUE] as const

/** A cylinder of even water content, 0 to 100 wt%. */
export function evenly(water: number): Moisture {
  need('water', water, ...WATER_WT, 'wt%')
  return { atAir: water, above: new Float64Array(SHELLS) }
}

/** Mean water content, wt%. */
export function meanWater(m: Moisture): number {
  let sum = m.atAir
  for (const a of m.above) sum += a
  return sum
}

/** The same cylinder in air whose equilibrium is another. */
function inAir(m: Moisture, atAir: number): Moisture {
  const d = m.atAir - atAir
  const { weights } = modes()
  return { atAir, above: m.above.map((a, i) => a + d * weights[i]!) }
}

/** State after x = D·t/a² in air whose equilibrium is `atAir` wt%. */
export function carried(m: Moisture, atAir: number, x: number): Moisture {
  need('atAir', atAir, ...WATER_WT, 'wt%')
  need('x', x, ...X, '(D·t/a²)')
  const n = inAir(m, atAir)
  const { rates } = modes()
  for (let i = 0; i < SHELLS; i++) {
    const decay = rates[i]! * x
    n.above[i]! *= decay > GONE ? 0 : Math.exp(-decay)
  }
  return n
}

/** Mean water in wt% after x = D·t/a² in air whose equilibrium is `atAir` wt%, without making a new state. */
export function meanAfter(m: Moisture, atAir: number, x: number): number {
  need('atAir', atAir, ...WATER_WT, 'wt%')
  need('x', x, ...X, '(D·t/a²)')
  const d = m.atAir - atAir
  const { rates, weights } = modes()
  let sum = atAir
  for (let i = 0; i < SHELLS; i++) sum += (m.above[i]! + d * weights[i]!) * Math.exp(-rates[i]! * x)
  return sum
}

/**
 * Water that goes out through the surface meanwhile, wt% of the cylinder: the flow at the surface, summed over time.
 */
export function goneThroughSurface(m: Moisture, atAir: number, x: number): number {
  need('atAir', atAir, ...WATER_WT, 'wt%')
  need('x', x, ...X, '(D·t/a²)')
  const n = inAir(m, atAir)
  const { rates, surface } = modes()
  let sum = 0
  for (let i = 0; i < SHELLS; i++) sum += (n.above[i]! * surface[i]! * -Math.expm1(-rates[i]! * x)) / rates[i]!
  return sum
}
