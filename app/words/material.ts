/** Materials in words. */
import { shareWords } from '#shared/share'

/** `20 wt% carbon fibre`, or `none`. */
export const fillerWords = (m: { filler: string; fillerFraction: number }): string =>
  m.filler === 'none' ? 'none' : `${shareWords('fillerFraction', m.fillerFraction)} ${m.filler}`
