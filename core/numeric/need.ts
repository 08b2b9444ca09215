/**
 * An input outside what a computation takes: which field, what was given, what is allowed. The one error of the core.
 */
export class InputError extends Error {
  constructor(
    readonly field: string,
    readonly given: unknown,
    readonly allowed: string,
  ) {
    super(`${field}: ${String(given)} is not allowed; ${allowed}`)
    this.name = 'InputError'
  }
}

/** Moments that a date can be of, ms since 1970. */
export const AT_MS = [-8.64e15, 8.64e15] as const

/** A chance, 0 to 1, with what rounding adds to one that was reckoned. */
export const CHANCE = [-1e-9, 1 + 1e-9] as const

/** Throws InputError unless the value is a number from `low` to `high`; NaN never passes. */
export function need(field: string, value: number, low: number, high: number, unit = ''): void {
  if (typeof value === 'number' && value >= low && value <= high) return
  throw new InputError(field, value, `${low} to ${high}${unit === '' ? '' : ` ${unit}`}`)
}

/** Throws InputError unless the value is one of the words. */
export function needOne(field: string, value: unknown, words: readonly unknown[]): void {
  if (!words.includes(value)) throw new InputError(field, value, `one of ${words.join(', ')}`)
}

/** The same for a fact that may not be known: null and undefined pass. */
export function needIfKnown(
  field: string,
  value: number | null | undefined,
  low: number,
  high: number,
  unit = '',
): void {
  if (value !== null && value !== undefined) need(field, value, low, high, unit)
}

/** The same for several facts of one record that share a range. */
export function needEach<K extends string>(
  of: Readonly<Partial<Record<K, number | null | undefined>>>,
  fields: readonly K[],
  low: number,
  high: number,
  unit = '',
): void {
  for (const k of fields) needIfKnown(k, of[k], low, high, unit)
}
