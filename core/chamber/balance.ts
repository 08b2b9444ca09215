/**
 * The heat of an enclosure: what bed, nozzle and chamber heater bring against what walls, gaps and a vent take, for one
 * mixed air node. W, °C, m², mm², l/min. Films and walls by their own files; flow through gaps by the stack effect
 * (ASHRAE Fundamentals, chapter Ventilation and Infiltration, from memory): inlet low, outlet high, half the height
 * between each and the neutral level.
 */
import { InputError, need, needIfKnown, needOne, rootOf } from '../numeric'
import { GRAVITY, KELVIN, onHorizontal, radiated } from './films'
import { checkWall, MOST_WALLS, throughWall, WALL_MATERIALS, type Wall, type WallHeat } from './walls'

/** What is under the bed. */
export const BED_UNDER = ['bare', 'insulated'] as const
export interface PlannedBed {
  /** What it is set to, in true degrees. */
  setC: number
  areaM2: number
  /** What its heater brings at most, W. */
  powerW: number
  under: (typeof BED_UNDER)[number]
}
export interface EnclosurePlan {
  walls: readonly Wall[]
  /** Height of the air inside, m. */
  heightM: number
  roomC: number
  bed: PlannedBed
  /** What the hotend gives to the air, W. */
  nozzleW: number
  /** A chamber heater's power, W; 0 without one. */
  heaterW: number
  /** What it is set to; null: it is not used, or there is none. */
  heaterSetC: number | null
  /** Temperature of its own cut-out, °C; null where it has none. */
  cutOutC: number | null
  /** A fan stirs the air inside. */
  stirred: boolean
  /** Gaps of doors, lid and cables, all together, mm²: half of it low, half high. */
  gapMm2: number
  /** Air drawn out by a fan, l/min. */
  ventLMin: number
}

/** What a plan takes. */
export const PLAN_RANGES = {
  heightM: [0.05, 3],
  roomC: [-20, 60],
  bedC: [0, 300],
  bedM2: [0.001, 4],
  bedW: [1, 10_000],
  nozzleW: [0, 500],
  heaterW: [0, 20_000],
  heaterSetC: [20, 250],
  cutOutC: [30, 300],
  gapMm2: [0, 1e6],
  ventLMin: [0, 100_000],
  insideKg: [0, 1000],
} as const

/** Refuses a plan with a number outside its range, by an InputError at its field. */
export function checkPlan(p: EnclosurePlan): void {
  if (p.walls.length === 0 || p.walls.length > MOST_WALLS)
    throw new InputError('walls', p.walls.length, `1 to ${MOST_WALLS} walls`)
  p.walls.forEach((w, i) => checkWall(w, `walls.${i}`))
  need('heightM', p.heightM, ...PLAN_RANGES.heightM, 'm')
  need('roomC', p.roomC, ...PLAN_RANGES.roomC, '°C')
  need('bed.setC', p.bed.setC, ...PLAN_RANGES.bedC, '°C')
  need('bed.areaM2', p.bed.areaM2, ...PLAN_RANGES.bedM2, 'm²')
  need('bed.powerW', p.bed.powerW, ...PLAN_RANGES.bedW, 'W')
  needOne('bed.under', p.bed.under, BED_UNDER)
  need('nozzleW', p.nozzleW, ...PLAN_RANGES.nozzleW, 'W')
  need('heaterW', p.heaterW, ...PLAN_RANGES.heaterW, 'W')
  needIfKnown('heaterSetC', p.heaterSetC, ...PLAN_RANGES.heaterSetC, '°C')
  needIfKnown('cutOutC', p.cutOutC, ...PLAN_RANGES.cutOutC, '°C')
  need('gapMm2', p.gapMm2, ...PLAN_RANGES.gapMm2, 'mm²')
  need('ventLMin', p.ventLMin, ...PLAN_RANGES.ventLMin, 'l/min')
}

/** Warmer than any chamber of a plan, °C. */
const HOTTEST_C = 400
const BED_EMISSIVITY = 0.9
/** Insulation under a bed: 10 mm of felt, m² K/W. */
const UNDER_R = 0.22
const CP = 1007
/** Density of air at 1 atm, kg/m³. */
const density = (tC: number) => 353.05 / (tC + KELVIN)
/** Of a sharp-edged gap; common practice, no source. */
const DISCHARGE = 0.65

/** What the bed gives to the air, at most what its heater brings, W. */
export function bedW(bed: PlannedBed, airC: number): number {
  if (bed.setC <= airC) return 0
  const perimeterM = 4 * Math.sqrt(bed.areaM2)
  const side = (facing: 'up' | 'down') =>
    onHorizontal(bed.areaM2, perimeterM, bed.setC, airC, facing).h + radiated(BED_EMISSIVITY, bed.setC, airC)
  const below = side('down')
  const under = bed.under === 'bare' ? below : 1 / (1 / below + UNDER_R)
  return Math.min(bed.powerW, (side('up') + under) * bed.areaM2 * (bed.setC - airC))
}

/** Air through gaps by its own buoyancy, m³/s of room air. */
export function gapFlow(gapMm2: number, heightM: number, airC: number, roomC: number): number {
  if (airC <= roomC) return 0
  const drive = (GRAVITY * heightM * (airC - roomC)) / (airC + KELVIN)
  return DISCHARGE * (gapMm2 / 2e6) * Math.sqrt(drive)
}
const airW = (m3S: number, p: EnclosurePlan, airC: number) => m3S * density(p.roomC) * CP * (airC - p.roomC)

/** How much of the drawn walls and gaps is really there: what one warm-up record can tell (`fitBothWays`). */
export interface Fit {
  /** Walls let through so many times what they are drawn with. */
  walls: number
  /** Gaps beside those that are known, mm². */
  moreGapMm2: number
}
function checkFit(fit: Fit): void {
  need('fit.walls', fit.walls, 0.01, 100)
  need('fit.moreGapMm2', fit.moreGapMm2, -PLAN_RANGES.gapMm2[1], 1e9, 'mm²')
}
/** The plan as it is drawn. */
export const AS_DRAWN: Fit = { walls: 1, moreGapMm2: 0 }

export interface Losses {
  walls: (WallHeat & { name: string })[]
  gapsW: number
  ventW: number
  totalW: number
}
/** What leaves an enclosure whose air is at `airC`. */
export function lossesAt(p: EnclosurePlan, airC: number, fit: Fit = AS_DRAWN): Losses {
  const walls = p.walls.map(wall => {
    const heat = throughWall(wall, p.heightM, airC, p.roomC, p.stirred)
    // a wall that lets through more than it is drawn with is hotter outside, too
    const outsideC = Math.min(airC, p.roomC + (heat.outsideC - p.roomC) * Math.max(1, fit.walls))
    return { ...heat, outsideC, w: heat.w * fit.walls, name: wall.name }
  })
  const gapsW = airW(gapFlow(Math.max(0, p.gapMm2 + fit.moreGapMm2), p.heightM, airC, p.roomC), p, airC)
  const ventW = airW(p.ventLMin / 60_000, p, airC)
  return { walls, gapsW, ventW, totalW: walls.reduce((a, w) => a + w.w, 0) + gapsW + ventW }
}

/** Within so many °C the air has come to rest. */
const RESTS_C = 1e-4
/** Where the air comes to rest with so much heat beside that of the bed, °C. */
export function restsAt(p: EnclosurePlan, besideW: number, fit: Fit = AS_DRAWN): number {
  const overW = (airC: number) => lossesAt(p, airC, fit).totalW - bedW(p.bed, airC) - besideW
  return rootOf(overW, p.roomC, HOTTEST_C, RESTS_C)
}

export interface Steady {
  /** Mean air, °C. */
  airC: number
  bedW: number
  nozzleW: number
  heaterW: number
  losses: Losses
}
/** The steady state of a plan: a heater that is set brings what it needs, up to its power. */
export function steadyAir(p: EnclosurePlan, fit: Fit = AS_DRAWN): Steady {
  checkPlan(p)
  checkFit(fit)
  return resting(p, fit)
}
/** The same of a plan that is checked. */
export function resting(p: EnclosurePlan, fit: Fit): Steady {
  const own = restsAt(p, p.nozzleW, fit)
  let airC = own
  if (p.heaterSetC !== null && p.heaterW > 0 && own < p.heaterSetC)
    airC = Math.min(p.heaterSetC, restsAt(p, p.nozzleW + p.heaterW, fit))
  const losses = lossesAt(p, airC, fit)
  const bed = bedW(p.bed, airC)
  const heaterW = airC > own ? Math.max(0, losses.totalW - bed - p.nozzleW) : 0
  return { airC, bedW: bed, nozzleW: p.nozzleW, heaterW, losses }
}

/** What a heater must bring for air of `targetC`, W; 0 where bed and nozzle do. */
export function heaterFor(p: EnclosurePlan, targetC: number, fit: Fit = AS_DRAWN): number {
  checkPlan(p)
  checkFit(fit)
  need('targetC', targetC, p.roomC, HOTTEST_C, '°C')
  return Math.max(0, lossesAt(p, targetC, fit).totalW - bedW(p.bed, targetC) - p.nozzleW)
}

/**
 * What must be drawn out so that the air stays at `targetC` with the heater off, beside gaps that are there: by a fan
 * (l/min) or by more gap (mm², half low and half high). 0 where it stays under by itself; null where no air would do.
 */
export function ventFor(
  p: EnclosurePlan,
  targetC: number,
  fit: Fit = AS_DRAWN,
): { fanLMin: number; gapMm2: number } | null {
  checkPlan(p)
  checkFit(fit)
  need('targetC', targetC, -100, HOTTEST_C, '°C')
  if (targetC <= p.roomC) return null
  const still = { ...p, ventLMin: 0 }
  const overW = bedW(p.bed, targetC) + p.nozzleW - lossesAt(still, targetC, fit).totalW
  if (overW <= 0) return { fanLMin: 0, gapMm2: 0 }
  const flow = overW / airW(1, p, targetC)
  return { fanLMin: flow * 60_000, gapMm2: flow / gapFlow(1, p.heightM, targetC, p.roomC) }
}

/**
 * Where the air goes when its heater is stuck on: the chamber heater at full power, or the bed's where there is none.
 * °C.
 */
export function stuckOn(p: EnclosurePlan, fit: Fit = AS_DRAWN): { heater: 'chamber heater' | 'bed'; airC: number } {
  checkPlan(p)
  checkFit(fit)
  if (p.heaterW > 0) return { heater: 'chamber heater', airC: restsAt(p, p.nozzleW + p.heaterW, fit) }
  const off = { ...p, bed: { ...p.bed, setC: p.roomC } }
  return { heater: 'bed', airC: restsAt(off, p.nozzleW + p.bed.powerW, fit) }
}

/** What a kilogram of metal takes up, J/K. */
const METAL_JKGK = 500
/** How much of a wall warms with the air. */
const WARM_SHARE = 0.5
/** What warms with the air: metal of the machine inside, and about half of each wall, J/K. */
function capacityJK(p: EnclosurePlan, insideKg: number): number {
  const wall = (w: Wall) =>
    w.layers.reduce((a, l) => a + WALL_MATERIALS[l.material].capacityKJM3K * l.mm * w.areaM2, 0) * WARM_SHARE
  return insideKg * METAL_JKGK + p.walls.reduce((a, w) => a + wall(w), 0)
}
/**
 * Time constant, s: what is warmed over what leaves for each °C more. `insideKg`: metal of the machine that warms with
 * the air, 0 to 1000 kg. A rough number: a recorded warm-up knows better.
 */
export function timeConstant(p: EnclosurePlan, insideKg: number): number {
  need('insideKg', insideKg, ...PLAN_RANGES.insideKg, 'kg')
  const { airC } = steadyAir(p)
  return warmsIn(p, insideKg, airC, AS_DRAWN)
}
/** The same where the plan is checked, and where its air rests is known. */
export const warmsIn = (p: EnclosurePlan, insideKg: number, airC: number, fit: Fit) =>
  capacityJK(p, insideKg) / stiffness(p, airC, fit)
/** W for each °C more of air that rests at `airC`. */
export function stiffness(p: EnclosurePlan, airC: number, fit: Fit): number {
  const STEP = 0.5
  const net = (c: number) => lossesAt(p, c, fit).totalW - bedW(p.bed, c)
  const from = Math.max(p.roomC, airC - STEP)
  return Math.max(1e-3, (net(airC + STEP) - net(from)) / (airC + STEP - from))
}
