/**
 * What filament is printed on: a sheet, alone or with something put on it. The one list for form, schema and core; the
 * words are those of the trade (common practice, no source).
 */
export const SHEETS = [
  'PEI',
  'epoxy-glass laminate',
  'glass',
  'polycarbonate',
  'polypropylene',
  'polyimide',
  'carbon fibre plate',
  'steel',
  'aluminium',
] as const
/** What is put on a sheet, to hold or to part. */
export const ADHESIVES = ['glue stick', 'adhesive', 'release agent', 'superglue'] as const

export type Sheet = (typeof SHEETS)[number]
export interface Surface {
  sheet: Sheet
  adhesive: (typeof ADHESIVES)[number] | null
}
const wordIn = <W extends string>(words: readonly W[], typed: string) =>
  words.find(w => w.toLowerCase() === typed.trim().toLowerCase())

/** A surface as it is written: "glass + glue stick". */
export const surfaceText = (s: Surface): string => (s.adhesive === null ? s.sheet : `${s.sheet} + ${s.adhesive}`)

/** All of them as they are written: the matrix of a fleet reads thousands. */
const WRITTEN = new Map(
  SHEETS.flatMap(sheet => [null, ...ADHESIVES].map(adhesive => ({ sheet, adhesive }))).map(s => [surfaceText(s), s]),
)

/** Every sheet, alone and with each adhesive, as it is written: to choose from. */
export const SURFACES: readonly string[] = [...WRITTEN.keys()]

/**
 * Reads "glass + glue stick", however it is spaced or capitalised; null when a word is not in the lists.
 *
 * @example
 * readSurface('pei + Glue stick') // {"sheet":"PEI","adhesive":"glue stick"}
 */
export function readSurface(text: string): Surface | null {
  const written = WRITTEN.get(text)
  if (written) return written
  const [typedSheet = '', typedAdhesive, ...rest] = text.split('+')
  const sheet = wordIn(SHEETS, typedSheet)
  const adhesive = typedAdhesive === undefined ? null : wordIn(ADHESIVES, typedAdhesive)
  return sheet === undefined || adhesive === undefined || rest.length > 0 ? null : { sheet, adhesive }
}

/** Those of the surfaces that this sheet makes, alone or with what must be put on it; none when it makes none. */
export function onSheet(surfaces: readonly string[], sheet: string): Surface[] {
  const here = readSurface(sheet)?.sheet
  return surfaces.map(readSurface).filter((s): s is Surface => s !== null && s.sheet === here)
}

/** What bonds to a bare sheet for good, by polymer: there something between is a release, not a glue. From memory. */
const WELDS: Readonly<Record<string, readonly Sheet[]>> = {
  petg: ['PEI'],
  pei: ['PEI'],
  tpu: ['PEI'],
  pc: ['polycarbonate'],
}
/** Whether a polymer welds to this sheet when nothing is between. */
export const welds = (polymer: string | null, sheet: Sheet): boolean =>
  (polymer !== null && WELDS[polymer.trim().toLowerCase()]?.includes(sheet)) ?? false

/**
 * Why a filament goes on this sheet as it does, or why it does not; common practice, no source. `sheet` as the part
 * says.
 *
 * @example
 * surfaceReason('PETG', ['PEI + glue stick'], 'PEI') // "With glue stick between, or it welds to smooth PEI."
 */
export function surfaceReason(polymer: string | null, surfaces: readonly string[], sheet: string): string {
  const here = readSurface(sheet)?.sheet ?? null
  if (here === null) return ''
  const bare = here === 'PEI' ? 'smooth PEI' : here
  const [fit] = onSheet(surfaces, here)
  if (!fit) return welds(polymer, here) ? `It welds to ${bare}.` : `It does not hold on ${here}, or holds for good.`
  const glass =
    here === 'glass' ? ' Glass: remove it while it is warm, hands in gloves; cooling parts pull chips out.' : ''
  const releases = welds(polymer, here) || fit.adhesive === 'release agent'
  const without = releases ? ` between, or it welds to ${bare}.` : ', or it comes off.'
  const between = fit.adhesive === null ? '' : `With ${fit.adhesive}${without}`
  const fumes = fit.adhesive === 'superglue' ? ' Hot superglue irritates eyes and lungs and tears glass.' : ''
  return `${between}${fumes}${glass}`.trim()
}
