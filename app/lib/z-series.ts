/** Z numbers of a head with the nozzle that is on it now, and its probe's offsets: as series that may drift. */
import { driftOf, type Drift, type DriftPoint } from '#core/level'
import { mm } from '#core/words'
import type { LevelPage } from '#shared/answers/level'

export interface ZSeries {
  name: 'Z' | 'probe'
  fromMs: number
  /** The latest first. */
  points: DriftPoint[]
  drift: Drift | null
}

/** What was set with the nozzle that was set last: another stands elsewhere, and what was only read was not set. */
export function zSeries(head: LevelPage['heads'][number]): ZSeries[] {
  const set = head.records.filter(r => r.struck === null && r.why !== 'power-off')
  const same = set.filter(r => r.nozzleId === set[0]!.nozzleId)
  if (same.length === 0) return []
  const fromMs = Date.parse(same.at(-1)!.at)
  const day = (at: string) => (Date.parse(at) - fromMs) / 86_400_000
  const series = (name: ZSeries['name'], points: DriftPoint[]) => ({ name, fromMs, points, drift: driftOf(points) })
  const probe = same.flatMap(r => (r.probeMm === null ? [] : [{ day: day(r.at), mm: r.probeMm }]))
  return [
    series(
      'Z',
      same.map(r => ({ day: day(r.at), mm: r.zMm })),
    ),
    ...(probe.length === 0 ? [] : [series('probe', probe)]),
  ]
}

/** "Z of N-004 moves −0.04 mm in 30 days (90 % between −0.06 mm and −0.02 mm)". */
export function driftWords(s: ZSeries, nozzle: string): string {
  const what = s.name === 'Z' ? `Z with ${nozzle}` : `The probe with ${nozzle}`
  const d = s.drift
  if (d === null) return `${what}: too few numbers to tell whether it drifts.`
  const range = `90 % between ${mm(d.low90)} and ${mm(d.high90)}`
  if (d.verdict === 'still') return `${what} stands still: ${mm(d.per30)} in 30 days (${range}).`
  if (d.verdict === 'cannot tell') return `${what}: whether it drifts cannot be told (${range} in 30 days).`
  const why =
    s.name === 'Z'
      ? 'The tip wears, a screw works loose, or the mount gives.'
      : 'Its mount gives, or its tip wears: calibrate it, and look at its screws.'
  return `${what} drifts ${mm(d.per30)} in 30 days (${range}). ${why}`
}
