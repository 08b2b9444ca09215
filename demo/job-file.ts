/**
 * A plain job file of a given length, for the demo: square rings, layer by layer, relative E; first layer at half
 * speed.
 */
export interface Part {
  name: string
  lengthMm: number
  hours: number
  nozzleC: number
  bedC: number
  chamberC: number | null
}

export function jobFile(part: Part): string {
  const layers = 80
  const side = 60
  /** Rings a layer, so that the print goes at about 30 mm/s. */
  const rings = Math.max(1, Math.round((part.hours * 3600 * 30) / (side * 4 * layers)))
  const perLine = part.lengthMm / (layers * rings * 4)
  const feed = Math.round((side * 4 * rings * layers) / (part.hours * 60))
  const lines = [
    `; ${part.name}`,
    'G21',
    'G90',
    'M83',
    `M140 S${part.bedC}`,
    ...(part.chamberC === null ? [] : [`M141 S${part.chamberC}`]),
    `M104 S${part.nozzleC}`,
    ...(part.chamberC === null ? [] : [`M191 S${part.chamberC}`]),
    `M190 S${part.bedC}`,
    `M109 S${part.nozzleC}`,
    'G28',
    'G1 Z0.3 F900',
    'M107',
  ]
  for (let layer = 0; layer < layers; layer++) {
    lines.push(`; layer ${layer + 1}`, `G1 Z${(0.3 + layer * 0.25).toFixed(2)} F900`, `G0 X60 Y60 F9000`)
    if (layer === 3) lines.push('M106 S64')
    lines.push(`G1 F${layer === 0 ? Math.round(feed / 2) : feed}`)
    for (let ring = 0; ring < rings; ring++)
      for (const [x, y] of [
        [120, 60],
        [120, 120],
        [60, 120],
        [60, 60],
      ])
        lines.push(`G1 X${x} Y${y} E${perLine.toFixed(5)}`)
  }
  lines.push('G1 E-2 F1800', 'G1 Z60 F900', 'M104 S0', 'M140 S0', 'M107')
  return lines.join('\n') + '\n'
}
