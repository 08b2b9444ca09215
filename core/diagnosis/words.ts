/** What is said of a case: the verdict, and how a piece of evidence speaks for a cause. */
import { capital, chance, listed } from '../words'
import type { Cause } from './causes'
import type { Answer, Moved } from './posterior'

/**
 * From these chances on something is called very probable, and probable; below, the likeliest.
 * Source: IPCC guidance note on uncertainties (2010), "very likely" from 90 %, "likely" from 66 %; from memory.
 */
export const PROBABLE_FROM = { very: 0.9, probably: 0.66 } as const

/**
 * The verdict in a sentence.
 *
 * @example
 * const order = [{ cause: 'grip', chance: 0.8 }, { cause: 'melting limit', chance: 0.1 }]
 * answerWords({ cause: 'grip', sure: true, order }) // "Probably grip (80 %); next melting limit (10 %)."
 */
export function answerWords(a: Answer): string {
  const [first, second, third] = a.order
  const named = (x: { cause: Cause; chance: number }) => `${x.cause} (${chance(x.chance)})`
  if (a.cause !== null && first!.chance >= PROBABLE_FROM.very) return `Very probably ${named(first!)}.`
  if (a.cause !== null && first!.chance >= PROBABLE_FROM.probably)
    return `Probably ${named(first!)}; next ${named(second!)}.`
  if (a.cause !== null) return `The likeliest is ${named(first!)}; next ${named(second!)}.`
  const leading = [first, second, third].flatMap(x => (x && x.chance >= 0.1 ? [named(x)] : []))
  return leading.length === 0 ? 'Not enough to tell.' : `Not enough to tell: ${listed(leading, 'or')}.`
}

export type Speaks = 'strongly for' | 'for' | 'hardly' | 'against' | 'strongly against'
/** Odds that move by less than these speak neither for nor against, or not strongly. */
const SPEAKS = { at: 1.25, strongly: 4 } as const

/** How a piece of evidence speaks for the cause that it moved; chances from 0 to 1. Throws nothing. */
export function speaks({ before, after }: Pick<Moved, 'before' | 'after'>): Speaks {
  const odds = (p: number) => p / Math.max(1e-12, 1 - p)
  const ratio = odds(after) / Math.max(1e-12, odds(before))
  if (ratio >= SPEAKS.strongly) return 'strongly for'
  if (ratio >= SPEAKS.at) return 'for'
  if (ratio <= 1 / SPEAKS.strongly) return 'strongly against'
  return ratio <= 1 / SPEAKS.at ? 'against' : 'hardly'
}

/** A cause as a heading. */
export const causeWords = (c: Cause): string => capital(c)
