/**
 * Values that are kept as a share of 1 and that people say in per cent: one list for the forms, for what they show of
 * earlier values, and for entries that are corrected.
 */
const SHARES: Readonly<Record<string, string>> = { fillerFraction: 'wt%', boreGrowthLimit: '%', acceptedRisk: '%' }

/** What a field kept as a share is said in, `wt%` or `%`, by its name or path; null for any other field. */
export const shareUnit = (path: string): string | null => SHARES[path.split('.').pop()!] ?? null

// a share times a hundred has digits that nobody typed
const rounded = (v: number) => Number(v.toPrecision(12))
export const percentOf = (share: number): number => rounded(share * 100)
export const shareOf = (percent: number): number => rounded(percent / 100)

/** What a field shows of a kept number, and what is kept of a number typed there: per cent of a share, or the same. */
export const shownNumber = (path: string, kept: number | null): number | null =>
  kept === null || shareUnit(path) === null ? kept : percentOf(kept)
export const keptNumber = (path: string, typed: number | null): number | null =>
  typed === null || shareUnit(path) === null ? typed : shareOf(typed)

/** A share of a field in words, to three figures: `14.3 wt%`. */
export const shareWords = (path: string, share: number): string =>
  `${Number((share * 100).toPrecision(3))} ${shareUnit(path) ?? ''}`

/** A kept value as it was typed, with its unit where it is a share: `15 wt%`. */
export function saidValue(path: string, value: unknown): string {
  if (value === null || value === undefined || value === '') return 'empty'
  if (typeof value === 'number') return [shownNumber(path, value), shareUnit(path)].filter(x => x !== null).join(' ')
  return typeof value === 'object' ? JSON.stringify(value) : String(value)
}
