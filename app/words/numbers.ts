/** Numbers as the shop reads them: honest digits, units, decimal comma or point on the way in. */

/** A number someone typed; comma or point. NaN when it is none, null when empty. */
export function typedNumber(text: string): number | null {
  const t = text.trim().replace(/\u2212/g, '-')
  if (t === '') return null
  return /^[+-]?(\d+([.,]\d*)?|[.,]\d+)$/.test(t) ? Number(t.replace(',', '.')) : NaN
}

/** Mass in kg with two significant digits: "0.19 kg", "58 g" below 0.1 kg. */
export function kg(v: number | null): string {
  if (v === null || !Number.isFinite(v)) return 'unknown'
  if (v < 0.0005) return '0 kg'
  if (v < 0.0995) return `${Number((v * 1000).toPrecision(2))} g`
  return v >= 9.95 ? `${Math.round(Number(v.toPrecision(2)))} kg` : `${v.toPrecision(2)} kg`
}

/** A range with one unit: "80 % between 0.05 and 0.41 kg". */
export function kgBetween(low: number, high: number): string {
  const grams = high < 0.0995
  const f = (v: number) => {
    if (v < 0.0005) return '0'
    if (grams) return String(Number((v * 1000).toPrecision(2)))
    return v >= 9.95 ? String(Math.round(Number(v.toPrecision(2)))) : v.toPrecision(v < 0.1 ? 1 : 2)
  }
  return `80 % between ${f(low)} and ${f(high)} ${grams ? 'g' : 'kg'}`
}

export function grams(v: number): string {
  if (v >= 100) return `${v.toFixed(0)} g`
  return v >= 10 ? `${v.toFixed(1)} g` : `${Number(v.toPrecision(2))} g`
}
export function chance(v: number): string {
  if (v < 0.005) return 'under 1 %'
  return v > 0.995 ? 'over 99 %' : `${Math.round(v * 100)} %`
}
export function mm(v: number, digits = 3): string {
  return `${v.toFixed(digits)} mm`
}
export function metres(mmLength: number): string {
  return mmLength >= 10_000 ? `${(mmLength / 1000).toFixed(1)} m` : `${(mmLength / 1000).toFixed(2)} m`
}

export function duration(seconds: number): string {
  const m = Math.round(seconds / 60)
  return m < 60 ? `${m} min` : `${Math.floor(m / 60)} h ${String(m % 60).padStart(2, '0')} min`
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
