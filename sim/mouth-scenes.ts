/**
 * Seeded scenes of nozzle mouths: clean ones, ones with one fault, and ones with all faults mildly at once. What they
 * show is drawn by `mouth-picture`; all sizes in px.
 */
import { mulberry32 } from '../core/numeric'
import type { MouthScene, ScaleScene } from './mouth-picture'

export const FAULTS = [
  'clean',
  'oval',
  'chipped',
  'residue',
  'glare',
  'lit',
  'side light',
  'blurred',
  'noisy',
  'band',
  'strong ring',
  'off centre',
  'tilted',
  'dim',
  'small',
  'srgb',
  'all mildly',
] as const
export type Fault = (typeof FAULTS)[number]

export interface Scene extends MouthScene {
  fault: Fault
  umPerPx: number
  /** Diameter of the circle of equal area as it is, px. */
  across: number
}

/** A scene with a fault, the same for the same seed. `size` is the picture's width, px. */
export function mouthScene(fault: Fault, seed: number, size = 480): Scene {
  const random = mulberry32(seed * 977 + 13)
  const between = (low: number, high: number) => low + (high - low) * random()
  const height = Math.round(size * 0.75)
  const all = fault === 'all mildly'
  const is = (f: Fault, chance = 0.6) => fault === f || (all && random() < chance)
  const mild = all ? 0.5 : 1
  const r = is('small', 0) ? between(22, 28) : size * between(0.13, 0.2)
  const a = is('oval') ? r * (1 + mild * between(0.01, 0.05)) : r
  const deg = () => between(0, 360)
  const blur = fault === 'blurred' ? between(0.02, 0.035) * size * 0.5 : between(0.8, all ? 2.2 : 1.6)
  const strong = is('strong ring', 0.3)
  const dim = is('dim', 0.3)
  const light = dim ? between(0.25, 0.5) : 1
  const flatLevel = strong ? between(0.38, 0.55) : between(0.5, 0.75)
  const x = size / 2 + (is('off centre') ? mild * between(-0.16, 0.16) * size : between(-0.02, 0.02) * size)
  const y = height / 2 + (is('off centre') ? mild * between(-0.14, 0.14) * size : between(-0.02, 0.02) * size)
  const glareAt = between(0, 2 * Math.PI)
  return {
    fault,
    umPerPx: between(1.6, 3.2),
    across: 2 * Math.sqrt(a * r),
    width: size,
    height,
    seed,
    x,
    y,
    a,
    b: r,
    longDeg: deg(),
    flat: r * between(1.6, 2.4),
    levels: {
      mouth: light * (strong ? flatLevel * between(0.5, 0.65) : between(0.05, 0.12)),
      flat: light * flatLevel,
      around: light * (strong ? between(0.85, 0.95) : between(0.2, 0.3)),
    },
    blur,
    noise: is('noisy') ? mild * between(0.03, 0.06) : between(0.004, 0.009),
    turning: between(0, 0.06),
    rough: between(0.1, 0.45),
    tone: fault === 'srgb' || (all && random() < 0.5) ? 'srgb' : 'linear',
    ...(is('noisy') && { tint: [1, 0.86, 0.66] as [number, number, number] }),
    ...(is('band') && {
      band: { width: blur * between(4.6, 12), start: between(0.6, 0.9), middle: between(0.4, 0.7) },
    }),
    ...(is('chipped') && {
      chips: Array.from({ length: 1 + Math.floor(2 * random()) }, () => ({
        atDeg: deg(),
        wideDeg: between(10, 24),
        deep: r * mild * between(0.1, 0.22) + 3 * blur,
      })),
    }),
    ...(is('residue') && {
      residue: [residueFrom(deg(), mild * between(40, 90), r, light * between(0.25, 0.45))],
    }),
    ...(is('glare') && {
      glare: {
        x: x + r * Math.cos(glareAt),
        y: y + r * Math.sin(glareAt),
        size: r * between(0.1, 0.2) * mild,
        strength: between(0.5, 1.2),
      },
    }),
    ...(is('lit') && { lit: light * mild * between(0.1, 0.25) }),
    ...(is('side light') && { side: { strength: mild * between(0.6, 1.4), fromDeg: deg() } }),
    ...(is('tilted', 0.3) && { tilt: { deg: mild * between(8, 16), towardsDeg: deg() } }),
  }
}

const residueFrom = (fromDeg: number, wide: number, r: number, level: number) => ({
  fromDeg,
  toDeg: fromDeg + wide,
  inside: 0.18 * r,
  outside: 0.12 * r,
  level,
})

/** An ordinary picture of a stage scale. */
export const SCALE: ScaleScene = {
  width: 480,
  height: 360,
  seed: 1,
  every: 5,
  alongDeg: 12,
  x: 240,
  y: 180,
  blur: 1,
  noise: 0.01,
  tone: 'linear',
  half: 40,
  duty: 0.4,
}
