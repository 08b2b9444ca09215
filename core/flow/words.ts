/** What a bench found, in words; one set for the check, the nozzle's page and the bench. */
import { need, needEach } from '../numeric'
import { celsius } from '../words'
import type { Sustained } from './sustained'

const number = (v: number) => String(Number(v.toFixed(1)))

/**
 * The flow that is sustained, with its range and where it was tried. mm³/s, °C. Throws InputError.
 *
 * @example
 * const s = { temperatureC: 265, reach: 'at least the highest tested', flowMm3S: 16, low80: 16, high80: null }
 * sustainedWords(s) // "at least 16 mm³/s at 265 °C, the most that was tried"
 */
export function sustainedWords(s: Sustained): string {
  need('temperatureC', s.temperatureC, -273, 2000, '°C')
  needEach(s, ['flowMm3S', 'low80', 'high80'], 0, 1e4, 'mm³/s')
  const at = `${number(s.flowMm3S)} mm³/s at ${celsius(s.temperatureC)}`
  if (s.reach === 'at least the highest tested') {
    const doubt = s.low80 !== null && s.low80 >= s.flowMm3S - 0.05 ? '' : lower(s.low80)
    return `at least ${at}, the most that was tried${doubt}`
  }
  if (s.reach === 'under the lowest tested') {
    const doubt = s.high80 !== null && s.high80 <= s.flowMm3S + 0.05 ? '' : upper(s.high80)
    return `less than ${at}, the least that was tried${doubt}`
  }
  return `about ${at} (80 % ${range(s.low80, s.high80)})`
}
const lower = (low: number | null) => (low === null ? ' (or less: it is not sure)' : ` (surely ${number(low)})`)
const upper = (high: number | null) => (high === null ? ' (or more: it is not sure)' : ` (surely not ${number(high)})`)
function range(low: number | null, high: number | null): string {
  if (low === null) return high === null ? 'anywhere that was tried' : `under ${number(high)}`
  return high === null ? `over ${number(low)}` : `between ${number(low)} and ${number(high)}`
}
