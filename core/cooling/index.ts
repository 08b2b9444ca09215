/**
 * Cooling down after a print. °C, mm, minutes. What is outside its range is refused by an InputError that names the
 * field and what is allowed; sources stand at the head of each file.
 */
export { BED_C, COOL_BELOW_GLASS_C, coolPlan, letDownCPerH, letDownToC, MOST_ACROSS_C } from './plan'
export type { CoolDown, CoolPhase, CoolPlan } from './plan'
