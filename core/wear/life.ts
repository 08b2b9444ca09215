/**
 * Lives: the wear mass at which a retire rule is broken, as a chance that rises with wear; and several rules together.
 */
import { need } from '../numeric'
import { WEAR_KG } from './check'
import { Crossings, type Rough } from './crossing'

export interface Life {
  /** Chance that the rule is broken by the time so many kg have gone through. */
  chance: (wearKg: number) => number
  /** Roughly where it rises: wear masses, kg, with weights. */
  rough: Rough
}

/** Life under the rule "at most so many kg". */
export function massLife(limitKg: number): Life {
  need('massLimitKg', limitKg, 0, 1e6, 'kg')
  return { chance: kg => (kg >= limitKg ? 1 : 0), rough: { at: [limitKg * (1 - 1e-9), limitKg], weight: [1, 1] } }
}

/** Chance (0 to 1) that a rule is broken by the time `kg` have gone through, the rules being independent. */
export function brokenBy(lives: readonly Life[], kg: number): number {
  need('wearKg', kg, ...WEAR_KG, 'kg')
  return anyBroken(lives, kg)
}
/** Rounding takes the product a hair past one: no chance is below nothing. */
function anyBroken(lives: readonly Life[], kg: number): number {
  let whole = 1
  for (const l of lives) whole *= 1 - l.chance(kg)
  return Math.min(1, Math.max(0, 1 - whole))
}

/** ln kg between which a life is looked for. */
const LN_KG = [-30, 30] as const

/**
 * Wear masses at which the chance that any rule is broken first reaches each of the risks, kg; 0 when it is so from the
 * start, Infinity when it never is.
 */
export function wearAtRisks(lives: readonly Life[], risks: readonly number[]): number[] {
  if (lives.length === 0) return risks.map(() => Infinity)
  const chance = (lnKg: number) => anyBroken(lives, Math.exp(lnKg))
  const spread = new Crossings(chance, ...LN_KG, roughly(lives))
  const from = brokenBy(lives, 0)
  const end = chance(LN_KG[1])
  return risks.map(p => {
    need('risk', p, 1e-9, 1 - 1e-9)
    if (from >= p) return 0
    return end < p ? Infinity : Math.exp(spread.quantile(p))
  })
}

/** Of the first rule to be broken: roughly that of the one that is mostly first. */
function roughly(lives: readonly Life[]): Rough {
  const middle = (r: Rough) => {
    const order = r.at.map((_, i) => i).sort((i, j) => r.at[i]! - r.at[j]!)
    const half = r.weight.reduce((a, b) => a + b, 0) / 2
    let sum = 0
    for (const i of order) if ((sum += r.weight[i]!) >= half) return r.at[i]!
    return Infinity
  }
  const first = lives.map(l => l.rough).reduce((a, b) => (middle(b) < middle(a) ? b : a))
  const places = first.at.map((_, i) => i).filter(i => first.at[i]! > 0)
  return { at: places.map(i => Math.log(first.at[i]!)), weight: places.map(i => first.weight[i]!) }
}

/** The same for one risk. */
export const wearAtRisk = (lives: readonly Life[], risk: number) => wearAtRisks(lives, [risk])[0]!
