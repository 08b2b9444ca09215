/** What a picture showed, in words. */
import type { Budget, Scale, Warning } from '#core/imaging'

export const WARNING_WORDS: Record<Warning, string> = {
  'tilted':
    'Seen askew: the flat of the tip is flattened alike, so the shortening is taken out. Straighten the nozzle.',
  'not separable':
    'A worn edge lies so close around the mouth that this blur does not tell them apart. Focus, or go closer.',
  'few pixels': 'Few pixels across the mouth: it is measured, but go closer for a surer figure.',
  'out of focus': 'Out of focus. It is measured, with a wider uncertainty; focus on the edge of the mouth.',
  'partly hidden': 'Part of the edge is hidden. Clean the tip, and turn the light away from where it glares.',
}

/** Parts of the uncertainty, by what they come from. */
export const BUDGET_WORDS: Record<keyof Budget, string> = {
  scaleUm: 'scale of the set-up',
  edgeUm: 'how an edge is read',
  blurUm: 'blur',
  noiseUm: 'noise and roughness',
  toneUm: 'tone not stated',
  hiddenUm: 'hidden edge',
  bandUm: 'worn edge around it',
  tiltUm: 'seen askew',
}

/** A length in µm with one decimal below ten. */
export const um = (v: number) => `${v < 9.95 ? v.toFixed(1) : Math.round(v)} µm`
export const inUm = (mm: number) => um(mm * 1000)
/** A bore with its uncertainty, as many digits as it knows. */
export const boreWithU = (mm: number, uMm: number) => `${mm.toFixed(4)} ± ${uMm.toFixed(4)} mm`
/** How sure a scale is, as a share of it. */
export const share = (s: Scale) => `${((100 * s.uUmPerPx) / s.umPerPx).toFixed(2)} %`
