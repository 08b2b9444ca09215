import { kgEstimate } from '#core/words'

/** What it still takes, behind a comma: ", about 0.35 kg (80 % between 0.2 and 0.6 kg) left"; '' while nobody knows. */
export const leftOn = (n: { leftKg: number | null; leftLowKg: number | null; leftHighKg: number | null }): string =>
  n.leftKg === null
    ? ''
    : `, ${kgEstimate({ median: n.leftKg, low80: n.leftLowKg ?? NaN, high80: n.leftHighKg ?? NaN })} left`

/** Where a nozzle is, for a sentence about it. */
export function whereIs(n: { place: string | null; retired: boolean }): string {
  if (n.place) return `fitted to ${n.place}`
  return n.retired ? 'retired' : 'on the shelf'
}
