/** A gauge in words, for records, questions and titles: "0.42 goes, 0.43 does not, tip 12.46 mm, oval". */
export interface GaugeFound {
  valueMm: number | null
  uMm: number | null
  goMm: number | null
  noGoMm: number | null
  tipMm: number | null
  shape: readonly string[]
}

const mm = (v: number) => `${Number(v.toFixed(4))}`

export function gaugeFoundWords(g: GaugeFound): string {
  const parts: string[] = []
  if (g.valueMm !== null) parts.push(`bore ${mm(g.valueMm)} ± ${mm(g.uMm ?? 0)} mm`)
  else if (g.goMm !== null && g.noGoMm !== null) parts.push(`${mm(g.goMm)} goes, ${mm(g.noGoMm)} does not`)
  else if (g.goMm !== null) parts.push(`${mm(g.goMm)} goes`)
  else if (g.noGoMm !== null) parts.push(`${mm(g.noGoMm)} does not go`)
  if (g.tipMm !== null) parts.push(`tip ${mm(g.tipMm)} mm`)
  parts.push(...g.shape)
  return parts.join(', ')
}
