/** Words of the pre-run check. A fact that is not known is null, and never counts as a pass. */
import type { DryTime } from '../drying'

/** The lines of a check, in their order. */
export const CHECK_KEYS = [
  'profile',
  'limits',
  'flow',
  'wear',
  'spool',
  'dryness',
  'surface',
  'first layer',
  'fan',
  'lid and vent',
  'soak',
] as const
export type CheckKey = (typeof CHECK_KEYS)[number]

/** `confirm`: only a person at the printer can tell. */
export type CheckStatus = 'ok' | 'look' | 'stop' | 'unknown' | 'confirm'
export interface CheckLine {
  key: CheckKey
  status: CheckStatus
  /** What is so, with its number, and what would set it right. */
  says: string
  fix: string
  /** A line that could hurt someone or break the machine can be set right, not waived. */
  waivable: boolean
}

export interface WindowOfMaterial {
  name: string
  nozzleMinC: number | null
  nozzleMaxC: number | null
  beds: readonly [number, number][]
}

export interface PrecheckFacts {
  job: {
    name: string
    nozzleC: number | null
    bedC: number | null
    chamberC: number | null
    peakMm3S: number | null
    hours: number | null
    massG: number | null
    fibreG: number | null
    fanMax: number | null
    firstLayer: { heightMm: number; meanMmS: number } | null
  }
  material: WindowOfMaterial & {
    polymer: string
    surfaces: readonly string[]
    chamberNeeded: boolean
    chamberMinC: number | null
    chamberMaxC: number | null
  }
  /** Hotter by the fitted nozzle's conductivity, °C. */
  nozzleOffsetC: number
  others: readonly WindowOfMaterial[]
  /** What the printer's stack says to the job's setpoints: lines that are not met, in words, the worst first. */
  limits: readonly { status: 'short' | 'look' | 'unknown'; says: string }[]
  nozzle: {
    tag: string
    boreMm: number
    provenMm3S: number | null
    left: { low80G: number; medianG: number } | null
    pastChance: number
  } | null
  spool: { tag: string; leftG: number } | null
  /** How long the spool stays dry where it will stand while it prints; null when it cannot be told. */
  dryness: DryTime | null
  drynessMissing: string
  /** The same fed from the dry box, to say whether that would help. */
  inBox: DryTime | null
  printsFrom: 'room' | 'dry box' | 'dryer'
  fittedSurface: string | null
  enclosed: boolean
  soak: { running: boolean; leftMin: number; done: boolean } | null
}
