/**
 * Numbers with their units as the shop reads them: as many digits as are known, one rule for each unit. They never
 * throw; what is no number is "unknown". Common practice, no source.
 */

/** Hours from which something is said to last for good; JSON has no infinity, so stored and sent times end here. */
export const FOR_GOOD_H = 1e5

const UNKNOWN = 'unknown'
const whole = (v: number) => String(Math.round(Number(v.toPrecision(2))))

/**
 * Mass given in kg, two significant digits: "12 kg", "0.19 kg", "58 g" below 0.1 kg. `v` in kg, 0 or more.
 *
 * @example
 * kg(0.058) // "58 g"
 */
export function kg(v: number | null): string {
  if (v === null || !Number.isFinite(v)) return UNKNOWN
  if (v < 0.0005) return '0 kg'
  if (v < 0.0995) return `${Number((v * 1000).toPrecision(2))} g`
  return `${v >= 9.95 ? whole(v) : v.toPrecision(2)} kg`
}

/** An 80 % range with one unit: "80 % between 0.05 and 0.41 kg". Both in kg, 0 or more. */
export function kgBetween(low: number, high: number): string {
  if (!Number.isFinite(low) || !Number.isFinite(high)) return UNKNOWN
  if (high < 0.0005) return '80 % below 0.5 g'
  const inGrams = high < 0.0995
  const text = (v: number) => {
    if (v < 0.0005) return '0'
    if (inGrams) return String(Number((v * 1000).toPrecision(2)))
    return v >= 9.95 ? whole(v) : v.toPrecision(v < 0.1 ? 1 : 2)
  }
  return `80 % between ${text(low)} and ${text(high)} ${inGrams ? 'g' : 'kg'}`
}

/**
 * An estimate with its range: "0.35 kg left" is never said alone. `median`, `low80`, `high80` in kg; unknown where the
 * median is.
 */
export function kgEstimate(r: { median: number; low80: number; high80: number }): string {
  if (!Number.isFinite(r.median)) return UNKNOWN
  const between = kgBetween(r.low80, r.high80)
  return between === UNKNOWN ? `about ${kg(r.median)}` : `about ${kg(r.median)} (${between})`
}

/** A count that is an estimate, from low to high, 0 or more: "300 to 3000", one digit from a hundred on. */
export function countBetween(low: number, high: number): string {
  if (!Number.isFinite(low) || !Number.isFinite(high)) return UNKNOWN
  const text = (v: number) => String(Number(Math.max(0, v) < 99.5 ? Math.round(Math.max(0, v)) : v.toPrecision(1)))
  return text(low) === text(high) ? `about ${text(low)}` : `${text(low)} to ${text(high)}`
}

/** Mass as weighed, in g: "312 g", "31.2 g", "3.1 g". */
export function grams(v: number): string {
  if (!Number.isFinite(v)) return UNKNOWN
  if (Math.abs(v) < 0.005) return '0 g'
  if (Math.abs(v) >= 100) return `${v.toFixed(0)} g`
  return Math.abs(v) >= 10 ? `${v.toFixed(1)} g` : `${Number(v.toPrecision(2))} g`
}

/** A chance, 0 to 1, never surer than "under 1 %" and "over 99 %". */
export function chance(v: number): string {
  if (!Number.isFinite(v)) return UNKNOWN
  if (v < 0.005) return 'under 1 %'
  return v > 0.995 ? 'over 99 %' : `${Math.round(v * 100)} %`
}
/** A chance so small that its size is the point: one digit, down to "under 0.01 %". 0 to 1. */
export function smallChance(v: number): string {
  if (!Number.isFinite(v)) return UNKNOWN
  return v < 0.0001 ? 'under 0.01 %' : `${Number((v * 100).toPrecision(1))} %`
}
/** A share, 0 to 1, in whole percent. */
export const percent = (v: number): string => (Number.isFinite(v) ? `${Math.round(v * 100)} %` : UNKNOWN)

/** How far something is off, a share of it: "4.2 % lower". */
export const offBy = (share: number): string =>
  Number.isFinite(share) ? `${Math.abs(share * 100).toFixed(1)} % ${share < 0 ? 'lower' : 'higher'}` : UNKNOWN

/** A length in mm to so many places. */
export const mm = (v: number, digits = 3): string =>
  // what rounds to nothing has no sign
  Number.isFinite(v) ? `${(Number(v.toFixed(digits)) || 0).toFixed(digits)} mm` : UNKNOWN
/** The number alone of a length in mm, without idle zeros, to so many places: "0.4", "0.4125". */
export const mmNumber = (v: number, digits = 4): string =>
  Number.isFinite(v) ? String(Number(v.toFixed(digits))) : UNKNOWN
/** A length of filament given in mm, as metres. */
export const metres = (lengthMm: number): string =>
  Number.isFinite(lengthMm) ? `${(lengthMm / 1000).toFixed(lengthMm >= 10_000 ? 1 : 2)} m` : UNKNOWN

/** A flow in mm³/s, two digits and more: "8.4 mm³/s", "35 mm³/s", "667 mm³/s". */
export const flow = (v: number): string =>
  Number.isFinite(v) ? `${Math.abs(v) < 9.95 ? Number(v.toPrecision(2)) : v.toFixed(0)} mm³/s` : UNKNOWN

/** A temperature in °C, at most one place. */
export const celsius = (v: number): string => (Number.isFinite(v) ? `${Number(v.toFixed(1))} °C` : UNKNOWN)

/**
 * A limit in whole °C, rounded against the user: what is allowed is never said to be more.
 *
 * @example
 * celsiusDown(99.6) // "99 °C"
 */
export const celsiusDown = (v: number): string => (Number.isFinite(v) ? `${Math.floor(v + 1e-9)} °C` : UNKNOWN)

/** A time in s as a clock says it: "48 min", "9 h 05 min". */
export function duration(seconds: number): string {
  if (!Number.isFinite(seconds)) return UNKNOWN
  const m = Math.round(seconds / 60)
  return m < 60 ? `${m} min` : `${Math.floor(m / 60)} h ${String(m % 60).padStart(2, '0')} min`
}
/** Hours of an estimate: minutes below an hour and a half, "for good" when there is no end. */
export function hours(h: number): string {
  if (Number.isNaN(h) || h === -Infinity) return UNKNOWN
  if (h >= FOR_GOOD_H) return 'for good'
  if (h < 1.5) return `${Math.round(h * 60)} min`
  return `${h < 10 ? Number(h.toFixed(1)) : Math.round(h)} h`
}

/** Water in wt%, two digits that say something. */
export function water(v: number): string {
  if (!Number.isFinite(v)) return UNKNOWN
  return `${v >= 0.095 ? v.toFixed(2) : Number(v.toPrecision(2))} wt%`
}

/** An amount of money as estimates have it, with the shop's currency behind it when it has one. */
export function money(v: number, currency: string): string {
  if (!Number.isFinite(v)) return UNKNOWN
  const text = v >= 100 ? Math.round(v) : Number(v.toFixed(v < 10 ? 1 : 0))
  return `${text}${currency ? ` ${currency}` : ''}`
}

/** A price as on an invoice: cents, and a price of a gram or a metre to its last digit. */
export function price(v: number, currency: string): string {
  if (!Number.isFinite(v)) return UNKNOWN
  const digits = String(Number(v.toPrecision(9))).split('.')[1]?.length ?? 0
  return `${v.toFixed(Math.min(6, Math.max(2, digits)))}${currency ? ` ${currency}` : ''}`
}

/** A sum of prices, to the cent: a share of a pack has no last digit. */
export function sumOfPrices(v: number, currency: string): string {
  return price(Math.round(v * 100) / 100, currency)
}

/** What is left of something that has so many minutes to go; `done` at 0 and after. */
export function leftWords(min: number): string {
  if (Number.isNaN(min) || min === -Infinity) return 'unknown'
  if (min <= 0) return 'done'
  if (!Number.isFinite(min)) return 'for good'
  const whole = Math.ceil(min)
  if (whole < 90) return `${whole} min to go`
  return `${Math.floor(whole / 60)} h ${String(whole % 60).padStart(2, '0')} min to go`
}
