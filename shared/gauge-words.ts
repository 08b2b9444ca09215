/** A gauge in words, for records, questions and titles: "0.42 goes, 0.43 does not, tip 12.46 mm, oval". */
import { mmNumber } from '#core/words'

export interface GaugeFound {
  valueMm: number | null
  uMm: number | null
  goMm: number | null
  noGoMm: number | null
  tipMm: number | null
  shape: readonly string[]
}

export function gaugeFoundWords(g: GaugeFound): string {
  const parts: string[] = []
  if (g.valueMm !== null) parts.push(`bore ${mmNumber(g.valueMm)} ± ${mmNumber(g.uMm ?? 0)} mm`)
  else if (g.goMm !== null && g.noGoMm !== null) parts.push(`${mmNumber(g.goMm)} goes, ${mmNumber(g.noGoMm)} does not`)
  else if (g.goMm !== null) parts.push(`${mmNumber(g.goMm)} goes`)
  else if (g.noGoMm !== null) parts.push(`${mmNumber(g.noGoMm)} does not go`)
  if (g.tipMm !== null) parts.push(`tip ${mmNumber(g.tipMm)} mm`)
  parts.push(...g.shape)
  return parts.join(', ')
}
