/**
 * What an anneal does to a part, and how hot it keeps its shape. Semi-crystalline polymers crystallise above their
 * glass transition; amorphous ones have no crystals to grow: they only relax. Common practice, no source.
 */
import { BELOW_GLASS_C, solidOf, type Transitions } from '../materials'
import { need } from '../numeric'

/** A semi-crystalline part slumps from so far below its melting point on, °C. */
const BELOW_MELT_C = 20
/** So far above its glass transition sand still holds an amorphous part, °C. */
const SAND_ABOVE_GLASS_C = 20

/** Polymers whose parts are usually annealed in sand. */
const IN_SAND = ['liquid-crystal polyester']
/** Whether parts of this polymer are usually annealed in sand. */
export const usuallyInSand = (polymer: string): boolean => IN_SAND.includes(polymer.toLowerCase())

/**
 * The hottest that a part keeps its shape at, °C, by its transitions (−100 to 600 °C) and whether sand holds it; null
 * when neither transition is known.
 *
 * @example
 * hottestAnneal({ glassC: 147, meltC: null }, false) // 142 (°C, polycarbonate lying free)
 */
export function hottestAnneal(t: Transitions, inSand: boolean): number | null {
  const solid = solidOf(t)
  if (solid === null) return null
  if (solid === 'semi-crystalline') return t.meltC! - BELOW_MELT_C
  return inSand ? t.glassC! + SAND_ABOVE_GLASS_C : t.glassC! - BELOW_GLASS_C
}

/** Why a part of `name` must not be annealed at `atC` °C (0 to 600); null when it may, as far as is known. */
export function annealRefusal(name: string, atC: number, t: Transitions, inSand: boolean): string | null {
  need('atC', atC, 0, 600, '°C')
  const hottest = hottestAnneal(t, inSand)
  if (hottest === null || atC <= hottest) return null
  if (t.meltC !== null) return `${name} melts at ${t.meltC} °C: ${atC} °C would slump it`
  const alone = `${name} is amorphous and softens at ${t.glassC} °C`
  return inSand
    ? `${alone}: at ${atC} °C not even sand holds its shape; stay at ${hottest} °C or below`
    : `${alone}: at ${atC} °C it would sag; stay at ${hottest} °C or below, or pack it in sand`
}

export type AnnealKind = 'crystallises' | 'relaxes' | 'not known'
/** What an anneal does to a part with these transitions, −100 to 600 °C. */
export function annealDoes(t: Transitions): AnnealKind {
  const solid = solidOf(t)
  if (solid === null) return 'not known'
  return solid === 'amorphous' ? 'relaxes' : 'crystallises'
}
