/**
 * Which cells of a bench this head, its nozzle and the filament stand: the hotend's ceiling as a setpoint, the
 * filament's short-time maximum and the temperature from which it flows, both as what the sensor makes of a setpoint.
 * What is not known is no leave to heat. Source: the limits of the parts (`limits`), common practice else, no source.
 */
import { need, needEach } from '../numeric'
import { correctionAt, type Correction } from '../thermometry'
import { celsius, celsiusDown } from '../words'
import { BENCH_C } from './plan'

export interface BenchLimits {
  /** Highest setpoint that the hotend with its nozzle stands, °C; null: not known. */
  ceilingSetC: number | null
  /** What checks found of the hotend's sensor. */
  sensor: Correction | null
  material: string
  /** Hottest for a short time, and coolest at which it flows, °C; null: not known. */
  shortMaxC: number | null
  lowestFlowC: number | null
}

/**
 * Why a bench must not be run at a setpoint (°C); null when it may. Throws InputError.
 *
 * @example
 * const limits = { ceilingSetC: 290, sensor: null, material: 'PA6', shortMaxC: 310, lowestFlowC: 240 }
 * cellRefusal(300, limits) // "300 °C is more than the hotend stands: 290 °C"
 */
export function cellRefusal(setC: number, l: BenchLimits): string | null {
  need('temperatureC', setC, ...BENCH_C, '°C')
  checkLimits(l)
  if (l.ceilingSetC === null) return 'What the hotend stands is not known: describe its parts first'
  if (l.shortMaxC === null)
    return `${l.material} has no short-time maximum: enter it with the material, from its data sheet`
  if (setC > l.ceilingSetC + SAME_C)
    return `${celsius(setC)} is more than the hotend stands: ${celsiusDown(l.ceilingSetC)}`
  const makesC = setC + correctionAt(l.sensor, setC).cC
  const set = Math.abs(makesC - setC) < 0.05 ? celsius(setC) : `${celsius(setC)} makes ${celsius(makesC)}, which`
  if (makesC > l.shortMaxC + SAME_C)
    return `${set} is more than ${l.material} stands for a short time: ${celsiusDown(l.shortMaxC)}`
  if (l.lowestFlowC !== null && makesC < l.lowestFlowC - SAME_C)
    return `${set} is less than ${l.material} flows at: ${celsius(l.lowestFlowC)}`
  return null
}
const SAME_C = 1e-6
const checkLimits = (l: BenchLimits) => needEach(l, ['ceilingSetC', 'shortMaxC', 'lowestFlowC'], -273, 2000, '°C')

/**
 * The hottest whole setpoint up to which a bench may go, °C; null where it cannot be told or there is none. Throws
 * InputError.
 */
export function hottestCellC(l: BenchLimits): number | null {
  checkLimits(l)
  if (l.ceilingSetC === null || l.shortMaxC === null) return null
  const most = Math.min(BENCH_C[1], Math.floor(Math.min(l.ceilingSetC, l.shortMaxC + 60) + SAME_C))
  for (let c = most; c >= BENCH_C[0]; c--) if (cellRefusal(c, l) === null) return c
  return null
}
