/**
 * How hot a nozzle is turned on this head, and why it may not be. °C. Sources: swap temperatures common practice, no
 * source; what a checked sensor means, `thermometry`.
 */
import { needIfKnown } from '../numeric'
import { correctionAt, type Correction } from '../thermometry'
import { setWhole } from './set-whole'
import { HOTEND_C, swapTemperature } from './swap'

/** Where nothing tells what went through: as if it had been PLA alone, °C; common practice, no source. */
export const START_TURN_C = 220

export interface Turning {
  /** What is set at the printer, °C; null when no material tells how hot. */
  setC: number | null
  /** What asks for it; null when nothing went through that is known. */
  material: string | null
  /** Why it must not be turned; null when it may. */
  refusal: string | null
}

/**
 * The temperature to turn a nozzle at, as a setpoint of this head: by what went through since it was last purged clean,
 * never above the ceiling of the hotend's weakest part (a setpoint; null: not known). `sensor` is what checks found of
 * it. Throws InputError.
 *
 * @example
 * turning(null, 240, [{ name: 'PA6', swapC: 245 }]).refusal !== null // true
 */
export function turning(
  sensor: Correction | null,
  ceilingSetC: number | null,
  through: readonly { name: string; swapC: number | null }[],
): Turning {
  needIfKnown('ceilingC', ceilingSetC, ...HOTEND_C, '°C')
  const ceilingC = ceilingSetC === null ? null : ceilingSetC + correctionAt(sensor, ceilingSetC).cC
  const t = swapTemperature(through.length > 0 ? through : [{ name: '', swapC: START_TURN_C }], ceilingC)
  const material = t.material === '' ? null : t.material
  if (t.atC === null)
    return { setC: null, material, refusal: `Cannot tell how hot to turn it: ${t.material} has no swap temperature.` }
  const setC = setWhole(sensor, t.atC, ceilingSetC)
  if (t.allowed) return { setC, material, refusal: null }
  const asks = `${material ?? 'a nozzle that nothing is known of'} asks ${setC} °C`
  return {
    setC,
    material,
    refusal:
      ceilingSetC === null
        ? `Cannot tell how hot the hotend may get; ${asks}.`
        : `Do not turn it: ${asks} and the hotend may get ${Math.floor(ceilingSetC)} °C. Change the whole hotend.`,
  }
}
