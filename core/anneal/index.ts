/**
 * Annealing printed parts. °C, hours, mm. What is outside its range is refused by an InputError that names the field
 * and what is allowed; sources stand at the head of each file.
 */
export { annealNow, annealPlan, annealSchools, DIFFUSIVITY, SAND_DIFFUSIVITY, SAND_MM, soakThroughH } from './plan'
export { THICKNESS_MM } from './plan'
export type { Anneal, AnnealAim, AnnealPlan, Oven, Phase } from './plan'
export { annealDoes, annealRefusal, hottestAnneal, usuallyInSand } from './shape'
export type { AnnealKind } from './shape'
