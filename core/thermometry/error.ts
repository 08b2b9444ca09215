export class ThermometryError extends Error {
  constructor(readonly field: string, readonly given: number, readonly allowed: string) {
    super(`${field}: ${given} is not allowed; ${allowed}`)
    this.name = 'ThermometryError'
  }
}

export function need(field: string, value: number, low: number, high: number, unit: string): void {
  if (!(value >= low && value <= high)) throw new ThermometryError(field, value, `${low} to ${high} ${unit}`)
}
