/**
 * Life in kg of filled filament, by the wear model or by what wore out. By the model ln life is normal with the rate's
 * spread, because life = wear mass to the limit / (filler share × abrasivity), and that mass goes with 1/κ (core/wear's
 * laws); what wore out gives a Weibull (`weibull.ts`).
 */
import { inverseNormal, need } from '../numeric'
import { NOMINAL_MM, wearToLimit } from '../wear'
import { meanPerScale, quantilePerScale, SHAPES } from './weibull'

export interface LifeSpread {
  meanLn: number
  sd: number
}

/** A Weibull of lives: shape, and scale in kg. */
export interface WeibullLife {
  shape: number
  scale: number
}
export type Life = LifeSpread | WeibullLife

/** Life in kg that a share p (0 to 1) of such nozzles does not reach. */
export function lifeKgAt(l: Life, p: number): number {
  checkLife(l)
  need('p', p, 1e-9, 1 - 1e-9)
  if ('scale' in l) return l.scale * quantilePerScale(l.shape, p)
  return Math.exp(l.meanLn + l.sd * inverseNormal(p))
}
/**
 * Life in kg that half of such nozzles reach.
 *
 * @example
 * medianLifeKg({ meanLn: Math.log(2), sd: 0.5 }) // 2.0 (kg)
 */
export function medianLifeKg(l: Life): number {
  return lifeKgAt(l, 0.5)
}

/** Mean life, kg. */
export function meanLifeKg(l: Life): number {
  checkLife(l)
  return 'scale' in l ? l.scale * meanPerScale(l.shape) : Math.exp(l.meanLn + l.sd ** 2 / 2)
}

function checkLife(l: Life): void {
  if (!('scale' in l)) return checkSpread(l)
  need('scale', l.scale, 1e-12, 1e12, 'kg')
  need('shape', l.shape, ...SHAPES)
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
