/** Annealing printed parts. */
export { annealNow, annealPlan, annealSchools, DIFFUSIVITY, soakThroughH } from './plan'
export type { Anneal, AnnealPlan, Oven, Phase } from './plan'
