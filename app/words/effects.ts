/** The effect of a save in one sentence. */
import type { StudyMethod } from '#core/study'
import type { GaugeEffect } from '#shared/answers/nozzles'
import type { RunEffect } from '#shared/answers/runs'
import type { ReadingEffect } from '#shared/answers/studies'
import { chance, counted, grams, kg, kgEstimate } from '#core/words'
import { inUm } from '~/words/picture'

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

export const methodWords = (s: { method: StudyMethod; setup: { name: string } | null }) =>
  s.method === 'pins' ? 'pins' : `pictures by ${s.setup?.name ?? 'its set-up'}`

/** What a saved line did. */
export function readingEffectWords(
  e: ReadingEffect,
  s: { method: StudyMethod; setup: { name: string } | null },
): string {
  if (e.left > 0) return `${counted(e.left, 'line')} left.`
  if (e.setsMm === null || e.setsMm === e.beforeMm) return 'The list is worked off. It sets nothing new.'
  const before = e.beforeMm === null ? 'none was counted before' : `${inUm(e.beforeMm)} before`
  return (
    `The list is worked off: a gauge by ${methodWords(s)} counts with ${inUm(e.setsMm)} of scatter from now on, ` +
    `${before}. ${counted(e.nozzles, 'forecast')} worked out anew.`
  )
}
