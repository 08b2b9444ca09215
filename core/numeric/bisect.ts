/** Where a rising condition turns true between `low` (false) and `high` (true), to within `tolerance`. */
export function bisect(isPast: (x: number) => boolean, low: number, high: number, tolerance: number): number {
  let a = low, b = high
  while (b - a > tolerance) {
    const m = (a + b) / 2
    if (isPast(m)) b = m
    else a = m
  }
  return b
}
