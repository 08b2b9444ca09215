/**
 * What a job file's scan answers. Units stand in the names; `null` means "never set" or "cannot be known".
 * The rules are those of the job-file reader (docs/job-file-reader.md); rule numbers in this folder refer to it.
 */
import { LARGEST } from './number-text'

export type Dialect = 'eIndependent' | 'eFollowsPositioning'

/**
 * Any setpoint that a job file may hold, °C: all that the reader reads. A slip of its author is to be judged, not
 * refused.
 */
export const SETPOINT_C = [-LARGEST, LARGEST] as const

/** Tools that one job may name (rule 16). */
export const MOST_TOOLS = 64

export type ProblemKind =
  'bad-number' | 'bad-checksum' | 'unknown-word' | 'no-feedrate' | 'too-many-tools' | 'not-text' | 'no-extrusion'

export interface Problem {
  /** Place in the file, from 1; null when it is about the whole file. */
  line: number | null
  kind: ProblemKind
}

export interface ScanOptions {
  /** How G90 / G91 touch the E axis (rule 14). Default `eIndependent`. */
  dialect?: Dialect
  /** Filament diameter, mm, 0.5 to 5. Default 1.75. */
  filamentDiameterMm?: number
  /** Size of the file in bytes, when known: gives the progress profile in 1 % steps. */
  totalBytes?: number
}

export interface ToolTotals {
  index: number
  extrudedMm: number
  offPartMm: number
  printingMm: number
}

export interface FlowFigures {
  /** mm³/s; null when no printing move has a known time. */
  peak: number | null
  p50: number | null
  p95: number | null
}

export interface ToolFlow extends FlowFigures {
  index: number
  /** Volume in mm³ extruded at each flow, bins of 1 mm³/s from 0; the last bin takes everything above. */
  histogramMm3: number[]
}

/** One step of the progress profile: what had been extruded when this share of the file had been read. */
export interface ProfileStep {
  percent: number
  /** mm per tool, in the order of `tools`. */
  extrudedMm: number[]
  seconds: number
  /** Height of the latest printing move, mm; 0 before the first. */
  zMm: number
}

export interface ScanResult {
  dialect: Dialect
  filamentDiameterMm: number
  tools: ToolTotals[]
  totalExtrudedMm: number | null
  moveSeconds: number | null
  flow: FlowFigures
  maxSetpointC: { tools: Record<string, number>; bed: number | null; chamber: number | null }
  fan: { max: number | null; mean: number | null }
  problems: Problem[]
  lines: number | null
}

/** Everything the library knows; `ScanResult` is the part the command line prints. */
export interface FullScan extends ScanResult {
  /** Flow of each tool. */
  toolFlow: ToolFlow[]
  /** True when the quantiles come from logarithmic bins (over 2 million printing moves; within 0.1 %). */
  flowBinned: boolean
  printingMoves: number
  /** Total by the other E reading, and how far it is from this one (share of the larger); null when they never part. */
  otherReading: { dialect: Dialect; totalExtrudedMm: number; difference: number } | null
  /** Commands that were passed over, by name. */
  ignored: Record<string, number>
  /** 0 % to 100 % of the file in 1 % steps; null when the size was not given. */
  profile: ProfileStep[] | null
  /** Height of the lowest printing moves and their mean speed; missing in scans made before this was read. */
  firstLayer?: { heightMm: number; meanMmS: number } | null
  /** Problems beyond the first 10 000, which are counted and not listed. */
  problemsNotListed: number
}
