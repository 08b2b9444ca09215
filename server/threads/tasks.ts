/** What is worked out beside the server: pure computation that would keep every other answer waiting. */
import { fitWarmUp, type FittedWarmUp, type Reading } from '#core/chamber'
import { forecast, RowStore, sisterTerm, type NozzleForecast, type NozzleInput, type SisterTerm } from '#core/wear'

type WearInput = NozzleInput & { acceptedRisk: number }

export const TASKS = {
  /** A nozzle's forecast, and what it tells its sisters. */
  wear(input: WearInput): { forecast: NozzleForecast; term: SisterTerm | null } {
    const store = new RowStore(input.bore, 'sliding')
    const term = sisterTerm(input.bore, input.material, store)
    return { forecast: forecast(input, input.law === 'sliding' ? store : undefined), term }
  },
  /** The forecast alone, for one who reads it. */
  forecast: (input: WearInput): NozzleForecast => forecast(input),
  /** What a nozzle tells its sisters alone. */
  term: ({ bore, material }: Pick<WearInput, 'bore' | 'material'>): SisterTerm | null => sisterTerm(bore, material),
  warmUp: (readings: Reading[]): FittedWarmUp => fitWarmUp(readings),
}
export type Task = keyof typeof TASKS
