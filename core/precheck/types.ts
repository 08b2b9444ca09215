/** Words of the pre-run check. A fact that is not known is null, and never counts as a pass. */
import type { CardValue } from '../cards'
import type { Guard, GuardState } from '../chamber'
import type { Sustained } from '../flow'
import type { DryTime } from '../drying'

/** The lines of a check, in their order. */
export const CHECK_KEYS = [
  'ready',
  'restrictions',
  'guards',
  'profile',
  'what worked',
  'limits',
  'in the nozzle',
  'flow',
  'wear',
  'spool',
  'dryness',
  'surface',
  'level',
  'first layer',
  'fan',
  'lid and vent',
  'chamber',
  'soak',
  'own',
  'after',
] as const
export type CheckKey = (typeof CHECK_KEYS)[number]

/** `confirm`: only eyes at the printer can tell. `note`: to know, nothing to answer. */
export type CheckStatus = 'ok' | 'look' | 'stop' | 'unknown' | 'confirm' | 'note'
/** Where the fact of a line is changed: the page that the line leads to. */
export const CHECK_PLACES = [
  'file',
  'material',
  'stack',
  'equip',
  'changeover',
  'gauge',
  'fit',
  'spool',
  'dry',
  'soak',
  'survey',
  // of checks stored before there were surveys
  'warm-up',
  'sensor',
  'hours',
  'change',
  'card',
  'level',
  'upkeep',
] as const
export type CheckPlace = (typeof CHECK_PLACES)[number]

export interface CheckLine {
  key: CheckKey
  status: CheckStatus
  /** What is so, with its number, and what would set it right. */
  says: string
  fix: string
  /** Where that is done; null where nothing is to be changed. */
  where: CheckPlace | null
  /** What could hurt someone or break the machine is changed, never waived. */
  waivable: boolean
  /** Reasons that people give for waiving it. */
  reasons: string[]
}

export interface WindowOfMaterial {
  name: string
  /** Of what it is filled with, for the likeliest of profiles that fit alike. */
  filler: string
  nozzleMinC: number | null
  nozzleMaxC: number | null
  beds: readonly [number, number][]
}

/** A line of the printer's limits that is not plainly met, in words. */
export interface LimitLine {
  status: 'short' | 'just' | 'look' | 'unknown'
  says: string
  /** The sensor of hotend or bed is what is not known well enough, not the air. */
  sensor?: boolean
  /** Only eyes tell: an insert that may be loose. */
  eye?: boolean
}

export interface PrecheckFacts {
  /** What the printer is not used for, in the shop's words. */
  restrictions: readonly string[]
  /** How what stops a runaway heater of the printer stands, by its latest test. */
  guards: readonly { guard: Guard; state: GuardState }[]
  /** What keeps the printer from being ready for work: a procedure left open, a tag, a note that nobody signed. */
  notReady: readonly { reason: string; action: string }[]
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
  /** What the file's setpoints make by what the checks of the sensors found; themselves where nobody has checked. */
  made: { nozzleC: number | null; bedC: number | null }
  material: WindowOfMaterial & {
    polymer: string
    surfaces: readonly string[]
    chamber: 'needs' | 'helps' | 'indifferent'
    chamberMinC: number | null
    chamberMaxC: number | null
    shortMaxC: number | null
    /** Where its parts crack when they are cooled fast; null when no glass transition is entered. */
    glassC: number | null
  }
  /** Hotter by the fitted nozzle's conductivity, °C. */
  nozzleOffsetC: number
  others: readonly WindowOfMaterial[]
  /** What the printer's stack says to the job's setpoints: lines that are not plainly met, the worst first. */
  limits: readonly LimitLine[]
  nozzle: {
    tag: string
    boreMm: number
    provenMm3S: number | null
    /** What its latest bench with this filament on this head says at the job's setpoint, and its day; null: none. */
    bench: { sustained: Sustained; on: string } | null
    left: { low80G: number; medianG: number; high80G: number } | null
    pastChance: number
    /** What the last gauge saw. */
    shape: readonly string[]
    /** Fitted since the last run on this head. */
    fittedSinceRun: boolean
    /** What may still stand in it; null when nothing is logged. */
    holds: { name: string; same: boolean; purgeC: number | null } | null
  } | null
  spool: { tag: string; leftG: number } | null
  /** How long the spool stays below what usually prints where it will stand meanwhile; null when it cannot be told. */
  dryness: DryTime | null
  drynessMissing: string
  /** The same until it is past what prints clean; null when it cannot be told. */
  clean: DryTime | null
  /** What too much water is to this filament. */
  wet: 'stop' | 'look'
  /** The same fed from the dry box, to say whether that would help. */
  inBox: DryTime | null
  printsFrom: 'room' | 'dry box' | 'dryer'
  fittedSurface: string | null
  enclosed: boolean
  /** Whether a chamber heater can follow the file. */
  heated: boolean
  /** The air that the file's setpoints make, °C with its U: at the coolest place of the build, and at the head. */
  air: { coolestC: number; headC: number; u90: number; from: string } | null
  /** What the last measure of the bed says, and its day; null where there is none. */
  level: { mark: 'fine' | 'look'; says: string; action: string; on: string } | null
  /** What is wrong with the head's Z number since a power-off; null while nothing is known to be. */
  zLost: string | null
  soak: { running: boolean; leftMin: number; done: boolean } | null
  /** What worked with this filament, this type of nozzle and printer; null where no nozzle is fitted. */
  worked: { good: number; failed: number; values: readonly CardValue[] } | null
  /** The shop's own lines for this material and printer. */
  own: readonly string[]
}
