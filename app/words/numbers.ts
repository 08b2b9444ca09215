/** A number as it is typed, and the colour of a temperature. Words for numbers are the core's. */

/** A number someone typed; comma or point. NaN when it is none, null when empty. */
export function typedNumber(text: string): number | null {
  const t = text.trim().replace(/\u2212/g, '-')
  if (t === '') return null
  return /^[+-]?(\d+([.,]\d*)?|[.,]\d+)$/.test(t) ? Number(t.replace(',', '.')) : NaN
}

/** Oxide (temper) colour of steel at a temperature in °C, for arrowheads. */
const TEMPER: [number, [number, number, number]][] = [
  [180, [91, 112, 131]],
  [230, [195, 154, 46]],
  [300, [146, 86, 35]],
  [380, [122, 62, 104]],
  [470, [46, 90, 136]],
]
export function temper(celsius: number): string {
  const last = TEMPER[TEMPER.length - 1]!
  if (celsius <= TEMPER[0]![0]) return rgb(TEMPER[0]![1])
  if (celsius >= last[0]) return rgb(last[1])
  const i = TEMPER.findIndex(([t]) => t >= celsius)
  const [t0, a] = TEMPER[i - 1]!,
    [t1, b] = TEMPER[i]!
  const f = (celsius - t0) / (t1 - t0)
  return rgb(a.map((v, k) => Math.round(v + f * (b[k]! - v))) as [number, number, number])
}
const rgb = (c: [number, number, number]) => `rgb(${c.join(',')})`

/** A typed number as it is sent: what is none goes along as such, and the server names its field. */
export const sent = (n: number | null): number | string | null => (n !== null && Number.isNaN(n) ? 'no number' : n)
