/**
 * What nozzles cost per kg of filled filament. Money in the shop's currency, filament in kg, time in hours. What is
 * outside its range is refused by an InputError that names the field and what is allowed; sources stand at the head of
 * each file.
 */
export { breakEvenLifeRatio, costPerKg, swapCost } from './cost'
export type { NozzleCost, Rates } from './cost'
export { chanceCheaper, costInYear, crossingKg } from './compare'
