/**
 * A set-up: a microscope at one magnification, or a camera with a lens. It has a scale that lasts until it is due
 * again; a camera that focuses by itself has none that lasts, since its magnification goes with the distance.
 */
import { AT_MS, need } from '../numeric'
import type { Budget } from './budget'
import { U_UM_PER_PX, UM_PER_PX } from './bore'
import type { Scale } from './scale'

/** Standard uncertainty of a scale that was not read from the same picture, by a camera that focuses by itself: 1 %. */
export const AUTOFOCUS_U = 0.01
/** Days after which a scale is read again, unless the shop says otherwise (a choice). */
export const SCALE_DAYS = 180
/** Days that a shop may let a scale last. */
export const SCALE_DAYS_RANGE = [1, 3650] as const

/** The scale that counts for a picture, µm per pixel: as it was read, or no surer than the camera's focus lets it. */
export function scaleFor(
  read: Scale,
  { focusesItself, isOfThisPicture }: { focusesItself: boolean; isOfThisPicture: boolean },
): Scale {
  need('umPerPx', read.umPerPx, ...UM_PER_PX, 'µm per pixel')
  need('uUmPerPx', read.uUmPerPx, ...U_UM_PER_PX, 'µm per pixel')
  if (!focusesItself || isOfThisPicture) return read
  return { umPerPx: read.umPerPx, uUmPerPx: Math.max(read.uUmPerPx, AUTOFOCUS_U * read.umPerPx) }
}

/** Whether a scale is to be read again: moments in ms since 1970, days from 1 to 3650. */
export function isScaleDue(readMs: number, nowMs: number, days: number): boolean {
  need('readMs', readMs, ...AT_MS)
  need('nowMs', nowMs, ...AT_MS)
  need('days', days, ...SCALE_DAYS_RANGE)
  return nowMs - readMs > days * 86_400_000
}

/** What all pictures of a set-up have wrong alike, and what differs from one to the next: standard uncertainty, mm. */
export interface UncertaintyParts {
  sharedMm: number
  randomMm: number
}

/** Parts of a budget that repeats do not make smaller: the scale, how an edge is read, its blur, the tone. */
const SHARED = ['scaleUm', 'edgeUm', 'blurUm', 'toneUm'] as const
const RANDOM = ['noiseUm', 'hiddenUm', 'bandUm', 'tiltUm'] as const

/** Parts that belong to one picture alone: no study of other pictures tells them. */
const OWN = ['hiddenUm', 'bandUm', 'tiltUm'] as const

/**
 * Random part of a picture's uncertainty, mm: what a gauge study of its set-up found (mm), or what hides, blunts and
 * tilts this very edge where that is more; by its own budget (µm) where no study was made.
 */
export function randomPart(b: Budget, studyMm: number | null): number {
  const claimed = partsOf(b).randomMm
  if (studyMm === null) return claimed
  need('studyMm', studyMm, 0, 1, 'mm')
  return Math.max(studyMm, together(b, OWN))
}

/** A budget (µm) in its two parts; together they are its combined uncertainty. */
export function partsOf(b: Budget): UncertaintyParts {
  return { sharedMm: together(b, SHARED), randomMm: together(b, RANDOM) }
}

/** Root of the sum of squares of some parts of a budget (µm), mm. */
function together(b: Budget, keys: readonly (keyof Budget)[]): number {
  for (const k of keys) need(k, b[k], 0, 1e5, 'µm')
  return Math.hypot(...keys.map(k => b[k])) / 1000
}
