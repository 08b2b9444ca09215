/**
 * Life in kg of filled filament from the spread of the wear rate: ln life is normal with the rate's spread, because
 * life = wear mass to the limit / (filler share × abrasivity), and that mass goes with 1/κ. Source: core/wear's laws.
 */
import { inverseNormal, need } from '../numeric'
import { NOMINAL_MM, wearToLimit } from '../wear'

export interface LifeSpread {
  meanLn: number
  sd: number
}

/** Life in kg that a share p (0 to 1) of such nozzles does not reach. */
export function lifeKgAt(l: LifeSpread, p: number): number {
  checkSpread(l)
  need('p', p, 1e-9, 1 - 1e-9)
  return Math.exp(l.meanLn + l.sd * inverseNormal(p))
}
/**
 * Life in kg that half of such nozzles reach.
 *
 * @example
 * medianLifeKg({ meanLn: Math.log(2), sd: 0.5 }) // 2.0 (kg)
 */
export function medianLifeKg(l: LifeSpread): number {
  checkSpread(l)
  return Math.exp(l.meanLn)
}

function checkSpread(l: LifeSpread): void {
  need('meanLn', l.meanLn, -60, 60)
  need('sd', l.sd, 0, 20)
}

/**
 * Life of a new nozzle by its bore rule, kg of filament: nominal bore in mm, growth limit as a share of it, spread of
 * ln κ (mm per kg of wear at a 0.4 mm bore), and kg of wear mass per kg of filament (filler share × abrasivity).
 */
export function boreLifeSpread(
  nominalBoreMm: number,
  growthLimit: number,
  kappa: LifeSpread,
  wearPerKg: number,
): LifeSpread {
  need('nominalBoreMm', nominalBoreMm, ...NOMINAL_MM, 'mm')
  checkSpread(kappa)
  need('growthLimit', growthLimit, 0.001, 2)
  need('wearPerKg', wearPerKg, 1e-9, 10)
  const atMedian = wearToLimit(
    'sliding',
    nominalBoreMm,
    Math.exp(kappa.meanLn),
    nominalBoreMm * (1 + growthLimit),
    nominalBoreMm,
  )
  return { meanLn: Math.log(atMedian / wearPerKg), sd: kappa.sd }
}
