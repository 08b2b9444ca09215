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

/** A kept value as people say it, with its unit where it is a share: `15 wt%`. */
export function saidValue(path: string, value: unknown): string {
  if (value === null || value === undefined || value === '') return 'empty'
  const unit = shareUnit(path)
  if (unit !== null && typeof value === 'number') return `${percentOf(value)} ${unit}`
  return typeof value === 'object' ? JSON.stringify(value) : String(value)
}
