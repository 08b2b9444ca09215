import { kgEstimate } from '#core/words'

/** What it still takes, behind a comma: ", about 0.35 kg (80 % between 0.2 and 0.6 kg) left"; '' while nobody knows. */
export const leftOn = (n: { leftKg: number | null; leftLowKg: number | null; leftHighKg: number | null }): string =>
  n.leftKg === null
    ? ''
    : `, ${kgEstimate({ median: n.leftKg, low80: n.leftLowKg ?? NaN, high80: n.leftHighKg ?? NaN })} left`

interface Somewhere {
  place: string | null
  hotend: string | null
  retired: boolean
}
/** Where a nozzle that is on no printer lies. */
export const shelfOf = (n: Pick<Somewhere, 'hotend'>): string =>
  n.hotend === null ? 'on the shelf' : `on the shelf in ${n.hotend}`

/** Where a nozzle is, for a sentence about it. */
export function whereIs(n: Somewhere): string {
  if (n.place) return `fitted to ${n.place}`
  return n.retired ? 'retired' : shelfOf(n)
}
