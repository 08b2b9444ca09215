/** Small questions asked of a finished scan. */
import { need, needIfKnown } from '../numeric'
import type { FullScan, ProfileStep, ScanResult } from './types'

/** Where a failed job stopped: percent of the file read (0 to 100), or layer height in mm. */
export type Stop = { percent: number } | { heightMm: number }

export interface StoppedTool {
  index: number
  extrudedMm: number
}

/**
 * What each tool had extruded (mm) when the job stopped, from the scan's 1 % steps, linear between them.
 * A height counts as finished: the answer is what had been extruded when the print last stood at that height.
 * Source: common practice, no source. Throws InputError when percent is outside 0 to 100 or the height is negative.
 */
export function stoppedAt(
  scan: Pick<FullScan, 'tools'> & { profile: ProfileStep[] },
  stop: Stop,
): { percent: number; tools: StoppedTool[] } {
  let percent: number
  if ('percent' in stop) {
    need('percent', stop.percent, 0, 100)
    percent = stop.percent
  } else {
    need('heightMm', stop.heightMm, 0, 1e6, 'mm')
    const above = scan.profile.findIndex(p => p.zMm > stop.heightMm + 1e-6)
    percent = above < 0 ? 100 : Math.max(0, above)
  }
  const low = scan.profile[Math.floor(percent)]!
  const high = scan.profile[Math.ceil(percent)]!
  const share = percent - Math.floor(percent)
  return {
    percent,
    tools: scan.tools.map((t, i) => ({
      index: t.index,
      extrudedMm: low.extrudedMm[i]! + share * (high.extrudedMm[i]! - low.extrudedMm[i]!),
    })),
  }
}

/**
 * Hours of the scan's moves, a lower bound; null where none could be timed: a file without a feedrate says nothing
 * about its time, and 0 hours would outlast anything.
 *
 * @example
 * movesH({ moveSeconds: 5400 }) // 1.5
 */
export function movesH(scan: { moveSeconds: number | null }): number | null {
  needIfKnown('moveSeconds', scan.moveSeconds, 0, 1e12, 's')
  return scan.moveSeconds === null || scan.moveSeconds === 0 ? null : scan.moveSeconds / 3600
}

/** The fields the command line prints and the samples hold, in their order. */
export function publicResult(s: ScanResult): ScanResult {
  return {
    dialect: s.dialect,
    filamentDiameterMm: s.filamentDiameterMm,
    tools: s.tools,
    totalExtrudedMm: s.totalExtrudedMm,
    moveSeconds: s.moveSeconds,
    flow: s.flow,
    maxSetpointC: s.maxSetpointC,
    fan: s.fan,
    problems: s.problems,
    lines: s.lines,
  }
}
