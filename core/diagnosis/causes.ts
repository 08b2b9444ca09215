/**
 * What can be wrong with a print: main causes that exclude each other, and something else. How often each was it before
 * anything is known, as the shop starts with; its own closed cases take over.
 * Source: common practice, no source.
 */

export const CAUSES = [
  'worn nozzle',
  'moisture',
  'partial clog',
  'grip',
  'melting limit',
  'steps or diameter',
  'heat creep',
  'residue',
  'wrong profile',
  'cold or drafty chamber',
  'plate or adhesive',
  'Z or level',
  'sensor off',
  'brittle filament',
  'bend or tangle',
  'something else',
] as const
/** A main cause; exclusive: a print with two is closed for one and asked again. */
export type Cause = (typeof CAUSES)[number]

/** How often each was it, of a hundred cases of shops that run filled filament. */
export const START_OF_100: Readonly<Record<Cause, number>> = {
  'worn nozzle': 8,
  'moisture': 16,
  'partial clog': 8,
  'grip': 6,
  'melting limit': 6,
  'steps or diameter': 4,
  'heat creep': 4,
  'residue': 4,
  'wrong profile': 6,
  'cold or drafty chamber': 7,
  'plate or adhesive': 7,
  'Z or level': 6,
  'sensor off': 3,
  'brittle filament': 2,
  'bend or tangle': 3,
  'something else': 10,
}
/** Something else is at least this likely before a case is looked at. */
export const LEAST_ELSE = 0.1
/** The start counts as so many closed cases. */
export const START_CASES = 10
/** A closing that a test or a repair proved counts whole, an assumed one a quarter. */
export const CLOSING_WEIGHT = { proved: 1, assumed: 0.25 } as const
/** How a closing counts. */
export type Known = keyof typeof CLOSING_WEIGHT
/** How it is known what it was. */
export const KNOWN_BY = ['by a test', 'by a repair', 'assumed'] as const
export type KnownBy = (typeof KNOWN_BY)[number]
/** A test or a repair proves it. */
export const countsAs = (known: KnownBy): Known => (known === 'assumed' ? 'assumed' : 'proved')
