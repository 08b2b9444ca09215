/**
 * Annealing printed parts. °C, hours, mm. What is outside its range is refused by an InputError that names the field
 * and what is allowed; sources stand at the head of each file.
 */
export { annealNow, annealPlan, annealSchools, DIFFUSIVITY, soakThroughH } from './plan'
export type { Anneal, AnnealPlan, Oven, Phase } from './plan'
