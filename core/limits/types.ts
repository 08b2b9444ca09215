/**
 * Words of this folder. Temperatures in °C, lengths in mm, money in the shop's currency, time in minutes.
 * A fact that is not known is null, and never counts as a pass.
 */
import type { Filler, NozzleMaterial } from '../wear'
import type { AirSource, Opening } from './air'
import type { Heat } from './heat'
import type { Correction } from '../thermometry'
import type { Sheet } from './surfaces'

/** What a number rests on. A start value is one that nobody entered. */
export const BASES = ['nameplate', 'data sheet', 'material property', 'practice', 'start value'] as const
export type Basis = (typeof BASES)[number]

/** Roles of the parts of one head. */
export const HEAD_ROLES = [
  'heater',
  'sensor',
  'liner',
  'heat break',
  'block',
  'sock',
  'firmware',
  'gears',
  'feed tube',
  'other hotend part',
] as const
/** Roles of the parts of the bed. */
export const BED_ROLES = [
  'bed heater',
  'bed sensor',
  'bed wiring',
  'bed insulation',
  'magnets',
  'glue line',
  'sheet',
  'other bed part',
] as const
/** Roles of the parts that stand in the heat of the chamber. */
export const CHAMBER_ROLES = [
  'printed parts',
  'belts',
  'motors',
  'fans',
  'bearings',
  'glazing',
  'insulation',
  'camera',
  'electronics',
  'other chamber part',
] as const
/** Roles of what stands around: enclosure, heater, dryer, ventilation. */
export const SITE_ROLES = ['enclosure', 'lid', 'chamber heater', 'chamber sensor', 'dryer', 'ventilation'] as const
/** All roles, from the head outwards. */
export const ROLES = [...HEAD_ROLES, ...BED_ROLES, ...CHAMBER_ROLES, ...SITE_ROLES] as const
export type Role = (typeof ROLES)[number]

/** Where a chamber part sits: the air differs from place to place. `outside` is the room. */
export const PLACES = ['low', 'high', 'bay', 'outside'] as const
export type Place = (typeof PLACES)[number]

/** Ventilation, the least first. */
export const VENTILATION = ['none', 'room ventilated', 'filtered', 'extracted outdoors'] as const
export type Ventilation = (typeof VENTILATION)[number]

/** Who may do the work. */
export const WHO = ['technician', 'electrician'] as const
export type Who = (typeof WHO)[number]

/** What is known of a part beside its limit; which of these a kind needs stands with the kind. */
export interface Details {
  /** NTC or platinum sensor read by a divider. */
  element?: 'ntc' | 'platinum' | 'type K'
  r25Ohm?: number
  betaK?: number
  pullUpOhm?: number
  bits?: number
  countMicrovolt?: number
  hardened?: boolean
  /** Tightest bend of the feed tube, and what it becomes when the tube is freed from its chain. */
  bendMm?: number
  freedBendMm?: number
  /** Whether the bend runs with the curl that the filament brings from its spool; unknown counts as against. */
  bendWay?: 'with' | 'against'
  /** The freed tube leaves through the top, so the lid stays off. */
  freedNeedsLidOff?: boolean
  surface?: Sheet
  /** Highest temperature that it holds: chamber heater, dryer. */
  reachC?: number
  level?: Ventilation
  mains?: boolean
  /** How a lid that is on stands open: its vent, or on a riser. */
  opening?: Exclude<Opening, 'shut' | 'off'>
  /** Chamber map as a person entered it: θ = (T − room)/(bed − room) with the lid on and off, and its standard u. */
  thetaU?: number
  thetaLow?: number
  thetaHigh?: number
  thetaBay?: number
  openThetaLow?: number
  openThetaHigh?: number
  /** With a chamber heater: the air at each place less the setpoint, and its standard u, °C. */
  offsetU?: number
  offsetLow?: number
  offsetHigh?: number
  offsetBay?: number
}

export interface Part {
  /** Its record, or 'nozzle', or the kind's key for one that is still to be bought. */
  id: number | string
  kind: string
  role: Role | 'nozzle'
  name: string
  headId: number | null
  place: Place
  limitC: number | null
  shortC: number | null
  basis: Basis
  note: string
  details: Details
}

export interface FittedNozzle {
  id: number | string
  tag: string
  material: NozzleMaterial
  boreMm: number
  insert: boolean
  lengthMm: number
  headId: number | null
  /** 0 for one that the shop has. */
  price: number
}

export interface Printer {
  id: number
  name: string
  heads: { id: number; name: string; nozzle: FittedNozzle | null }[]
  parts: Part[]
  /** What was measured of the air in its chamber: warm-ups, surveys. */
  air: readonly AirSource[]
  /** What the shop dries in; the same for every printer. */
  dryers: readonly Part[]
  /** What checks found of its sensors, as they sit on it now; absent: nobody has checked any. */
  sensors?: Sensors
}

/** What is known of a printer's sensors: of each head by its id, of the bed and of the chamber. */
export interface Sensors {
  heads: Readonly<Record<number, Correction | null>>
  bed: Correction | null
  chamber: Correction | null
}

export interface Rules {
  guardHotendC: number
  guardBedC: number
  guardChamberC: number
  /** The bands where a check covers the sensor. */
  guardHotendCheckedC: number
  guardBedCheckedC: number
  guardChamberCheckedC: number
  roomC: number
  /** Divides the strain at break; at least 1. */
  bendSafety: number
  /** °C per count above which a reading is called coarse. */
  coarseC: number
  /** Money per hour, to weigh one swap against another. */
  labourPerHour: number
}

/** Start values; guard bands and room as the design says, the others common practice, no source. */
export const START_RULES: Rules = {
  guardHotendC: 10,
  guardBedC: 5,
  guardChamberC: 5,
  guardHotendCheckedC: 5,
  guardBedCheckedC: 3,
  guardChamberCheckedC: 3,
  roomC: 23,
  bendSafety: 1.5,
  coarseC: 2,
  labourPerHour: 40,
}

/** How much a filament asks of a warm chamber. */
export const CHAMBER_LEVELS = ['needs', 'helps', 'indifferent'] as const
export type ChamberLevel = (typeof CHAMBER_LEVELS)[number]

/** What a filament under one practice set, or a job file, asks. */
export interface Demand {
  name: string
  /** What it is made of, for what welds to what; null when it is not told. */
  polymer: string | null
  set: string
  nozzleMinC: number | null
  nozzleMaxC: number | null
  /** A job file's own setpoint: checked as it is, without the nozzle's conductivity offset. */
  exact: boolean
  bedMinC: number | null
  bedMaxC: number | null
  chamber: ChamberLevel
  chamberMinC: number | null
  chamberMaxC: number | null
  /** The practice only holds inside an enclosure. */
  enclosed: boolean
  dryMinC: number | null
  /** False when it is printed as it comes. */
  dry: boolean
  surfaces: readonly string[] | null
  filler: Filler | null
  boreMinMm: number | null
  boreGoodMm: number | null
  strainAtBreak: number | null
  /** Radius of the free curl the filament took on its spool, mm; null for straight filament. */
  curlMm: number | null
  diameterMm: number
  ventilation: Ventilation | null
  /** Only the setpoints are known: a job file whose material was not told. */
  setpointsOnly: boolean
}

export type LineKey =
  | 'nozzle temperature'
  | 'reading'
  | 'nozzle'
  | 'nozzle insert'
  | 'bore'
  | 'gears'
  | 'bend'
  | 'tube heat'
  | 'bed'
  | 'surface'
  | 'enclosure'
  | 'chamber'
  | 'chamber part'
  | 'dryer'
  | 'ventilation'

interface LineOf {
  key: LineKey
  part: Part | null
  unit: '°C' | 'mm' | '°C per count' | ''
  /** Which case of its key it is. */
  code: string
}

/**
 * A requirement that could be judged. `asked` and `allowed` in `unit`, null where it is no matter of numbers. `just`:
 * the margin lies within its uncertainty. `u90` is that uncertainty (U, one-sided 90 %), `rests` on what the air rests,
 * `heat` what is set and what it makes, where a check found them to differ.
 */
export interface KnownLine extends LineOf {
  status: 'ok' | 'just' | 'look' | 'short'
  asked: number | null
  allowed: number | null
  u90: number
  rests: string
  heat?: Heat
}

/**
 * One that could not: it carries what is missing, and what is asked as far as that is known; there is nothing allowed.
 */
export interface UnknownLine extends LineOf {
  status: 'unknown'
  asked: number | null
  missing: string
}

/** One requirement; words are made of it in `words.ts`. */
export type Line = KnownLine | UnknownLine

/** `just`: it runs, but a margin lies within its uncertainty. */
export const VERDICT_CLASSES = ['runs', 'just', 'changes', 'cannot tell', 'cannot'] as const
export type VerdictClass = (typeof VERDICT_CLASSES)[number]
