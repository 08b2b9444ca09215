/** An input outside what a computation takes: which field, what was given, what is allowed. */
export class InputError extends Error {
  constructor(readonly field: string, readonly given: unknown, readonly allowed: string) {
    super(`${field}: ${String(given)} is not allowed; ${allowed}`)
    this.name = 'InputError'
  }
}

/** Throws InputError unless the value is a number from `low` to `high`; NaN never passes. */
export function need(field: string, value: number, low: number, high: number, unit: string): void {
  if (!(value >= low && value <= high)) throw new InputError(field, value, `${low} to ${high} ${unit}`)
}
