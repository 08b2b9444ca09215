/**
 * A shortfall (or a surplus) that all flows share: steps, diameter or density, never the nozzle. What to measure next,
 * and which record to correct. Steps are written from a length mark alone: written from a blob they would hide what is
 * wrong with this spool and spoil every other.
 * Source: common practice, no source.
 */
import { massG } from '../materials'
import { need } from '../numeric'
import { MARK_U_MM, nominalOf, CALLIPER_U_MM, type Filament } from './shares'
import type { BenchResult } from './sustained'

/** A level this near to nominal asks nothing of anybody, as a share. */
export const LEVEL_ALIKE = 0.015

export type LevelAsks =
  /** Nothing is off, or what was off is explained and recorded. */
  | { kind: 'fine' }
  /** The fall begins with the slowest flow: nothing is alike at all flows. */
  | { kind: 'no level' }
  /** Measure the filament in three places. */
  | { kind: 'calliper' }
  /** The filament is another diameter than its record says, mm. */
  | { kind: 'diameter'; mm: number }
  /** Mark a length and feed it. */
  | { kind: 'mark' }
  /** The head feeds another length than it is told: its steps per mm times this. */
  | { kind: 'steps'; factor: number }
  /** What is left is density: the record of the filament should say so, g/cm³. */
  | { kind: 'density'; gCm3: number }

export interface Level {
  /** What the slowest blobs delivered of the nominal mass by the filament's record, less 1. */
  off: number
  /** By all that was measured since. */
  left: number
  asks: LevelAsks
}

/**
 * What the level of a bench asks for. `result` is worked out with this filament's callipers and mark. Throws
 * InputError.
 */
export function levelOf(result: BenchResult, f: Filament): Level {
  need('level', result.level.share, 0, 100)
  const now = nominalOf(f)
  const recorded = massG(f.lengthMm, f.diameterMm, f.densityGCm3)
  const left = result.level.share - 1
  const off = (result.level.share * now.massG) / recorded - 1
  return { off, left, asks: asksOf(result, f, { off, left, diameterMm: now.diameterMm }) }
}

function asksOf(r: BenchResult, f: Filament, at: { off: number; left: number; diameterMm: number }): LevelAsks {
  const seen = (share: number) => Math.abs(share) > Math.max(LEVEL_ALIKE, 2 * r.level.u)
  if (f.callipersMm === null && !seen(at.off)) return { kind: 'fine' }
  if (!r.plateau) return { kind: 'no level' }
  if (f.callipersMm === null) return { kind: 'calliper' }
  if (Math.abs(at.diameterMm - f.diameterMm) > 2 * CALLIPER_U_MM) return { kind: 'diameter', mm: at.diameterMm }
  if (f.mark === null) return seen(at.left) ? { kind: 'mark' } : { kind: 'fine' }
  const fed = f.mark.fedMm / f.mark.toldMm
  if (Math.abs(fed - 1) > Math.max(0.01, (2 * MARK_U_MM) / f.mark.toldMm)) return { kind: 'steps', factor: 1 / fed }
  return seen(at.left) ? { kind: 'density', gCm3: f.densityGCm3 * r.level.share } : { kind: 'fine' }
}
