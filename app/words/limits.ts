/** A deciding part of a zone in words: what its number is a limit of, and how sure. */
import { celsiusDown } from '#core/words'

interface Limit {
  zone: string
  limitC: number
  fineC: number
  inAir: boolean
  of: 'setpoint' | 'air'
  heaterOff: boolean
}

/** "by the air at it, sure to 87 °C"; empty for a part that is heated itself and whose limit is sure. */
export function limitNote(l: Limit): string {
  const out: string[] = []
  if (l.zone === 'bed' && l.inAir) out.push('by the air that the bed makes at it')
  if (l.zone === 'chamber' && l.of === 'air') out.push('as air near the top')
  if (l.heaterOff) out.push('while the chamber heater is off')
  if (l.limitC - l.fineC >= 0.5) out.push(`sure to ${celsiusDown(l.fineC)}`)
  return out.join(', ')
}
