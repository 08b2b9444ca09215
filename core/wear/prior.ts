/** The normal prior of ln κ. */
import { InputError, need } from '../numeric'
import type { LogNormalPrior } from './types'

/** Log density at x. */
export function lnPrior(prior: LogNormalPrior, x: number): number {
  const z = (x - prior.meanLn) / prior.sd
  return -0.5 * z * z - Math.log(prior.sd * Math.sqrt(2 * Math.PI))
}

export function checkPrior(prior: LogNormalPrior): void {
  if (prior === null || typeof prior !== 'object') throw new InputError('prior', prior, 'mean and spread of ln κ')
  need('prior.meanLn', prior.meanLn, -40, 20)
  need('prior.sd', prior.sd, 1e-3, 10)
}
