/** What nozzles cost per kg of filled filament. Money in the shop's currency, filament in kg, time in hours. */
export { breakEvenLifeRatio, costPerKg, swapCost } from './cost'
export type { NozzleCost, Rates } from './cost'
export { chanceCheaper, costInYear, crossingKg } from './compare'
