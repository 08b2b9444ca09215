/** The effect of a save in one sentence. */
import type { GaugeEffect } from '#shared/answers/nozzles'
import type { RunEffect } from '#shared/answers/runs'
import { chance, grams, kg, kgEstimate } from '#core/words'

export function runEffectWords(e: RunEffect): string {
  return e.nozzles
    .map(n => {
      const what = n.fibreG > 0 ? `+${grams(n.fibreG)} fibre` : `+${grams(n.extrudedG)} unfilled`
      return `${what} on ${n.tag}${n.leftFibreKg === null ? '' : `; ${kgEstimate(n.leftFibreKg)} left`}`
    })
    .join('. ')
}

function nextWords(leftKg: number | null): string {
  if (leftKg === null) return ''
  return leftKg < 0.0005 ? ', gauge is due' : `, gauge again in ${kg(leftKg)}`
}

export function gaugeEffectWords(e: GaugeEffect): string {
  const left = e.leftFibreKg === null ? '' : `; ${kgEstimate(e.leftFibreKg)} left`
  const next = nextWords(e.nextGaugeFibreKg)
  const misread = e.outweighed ? 'The other gauges outweigh this one; it counts as misread. ' : ''
  return (
    `${misread}${e.tag} is at ⌀${e.boreMm.median.toFixed(3)} mm (80 % between ${e.boreMm.low80.toFixed(3)} and ` +
    `${e.boreMm.high80.toFixed(3)})${left}${next} (${chance(e.pastChance)} chance of ` +
    `being past the limit)`
  )
}
