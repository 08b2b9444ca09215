/**
 * What cannot be true of a run, or hardly: two at once on one head, the same one twice, more than a bore passes. Asked,
 * never refused. Times in ms since 1970, mm³, mm³/s, hours. Common practice, no source.
 */
import { AT_MS, need, needIfKnown } from '../numeric'

/** More than any bore and any hotend keep up over a whole run, mm³/s; common practice, no source. Editable. */
export const HIGHEST_FLOW_MM3S = 35
/** What a shop may set that to, mm³/s. */
export const HIGHEST_FLOW_RANGE = [5, 500] as const
/** How long a run may take, h. */
export const RUN_H = [0.01, 2000] as const
const VOLUME_MM3 = [0, 1e9] as const

/** Ends are logged late, and hours are rough: so much of two runs at once says nothing, minutes. */
export const SLACK_MIN = 15
/** Two amounts closer than this are the same amount, as a share. */
const SAME_AMOUNT = 0.005
const MINUTE = 60_000

/** When a head was busy with a run, ms. */
export interface Span {
  fromMs: number
  toMs: number
}
/** A run of one head as it is logged: ms since 1970, hours (null when nobody said), g. */
export interface PassedThrough {
  toMs: number
  hours: number | null
  material: string
  extrudedG: number
}

/** Mean flow of a volume (mm³) in so many hours (0.01 to 2000), mm³/s. */
export function meanFlowMm3S(volumeMm3: number, hours: number): number {
  need('volumeMm3', volumeMm3, ...VOLUME_MM3, 'mm³')
  need('hours', hours, ...RUN_H, 'h')
  return volumeMm3 / (hours * 3600)
}

/**
 * When a run that ended at `toMs` (ms) and took so many hours (0.01 to 2000) was under way; null when nobody said how
 * long it took.
 *
 * @example
 * spanOf({ toMs: 3_600_000, hours: 0.5 }).fromMs // 1800000 (ms: half an hour before its end)
 */
export function spanOf({ toMs, hours }: Pick<PassedThrough, 'toMs' | 'hours'>): Span | null {
  need('toMs', toMs, ...AT_MS, 'ms')
  needIfKnown('hours', hours, ...RUN_H, 'h')
  return hours === null ? null : { fromMs: toMs - hours * 60 * MINUTE, toMs }
}

/** Slack for runs as long as these, ms: a quarter of an hour, and never more than half of the shortest. */
const slackMs = (...spans: Span[]) => Math.min(SLACK_MIN * MINUTE, ...spans.map(s => (s.toMs - s.fromMs) / 2))

/**
 * Whether two runs on one head were under way at once for longer than logging late explains; never where nobody said
 * how long one of them took.
 */
export function overlap(a: Pick<PassedThrough, 'toMs' | 'hours'>, b: Pick<PassedThrough, 'toMs' | 'hours'>): boolean {
  const [s, t] = [spanOf(a), spanOf(b)]
  if (s === null || t === null) return false
  const both = Math.min(s.toMs, t.toMs) - Math.max(s.fromMs, t.fromMs)
  return both > 0 && both > slackMs(s, t)
}

/** Whether something at `atMs` (ms) happened clearly after a run had begun, and before it ended. */
export function during(atMs: number, run: Pick<PassedThrough, 'toMs' | 'hours'>): boolean {
  need('atMs', atMs, ...AT_MS, 'ms')
  const s = spanOf(run)
  return s !== null && atMs <= s.toMs && atMs - s.fromMs > slackMs(s)
}

/**
 * Whether two entries look like one run logged twice: as much (g) of the same filament on one head, at once, or, where
 * nobody said how long one of them took, ended within a quarter of an hour.
 */
export function sameRun(a: PassedThrough, b: PassedThrough): boolean {
  for (const p of [a, b]) need('extrudedG', p.extrudedG, 0, 1e6, 'g')
  if (a.material !== b.material) return false
  if (Math.abs(a.extrudedG - b.extrudedG) > SAME_AMOUNT * Math.max(a.extrudedG, b.extrudedG)) return false
  if (a.hours !== null && b.hours !== null) return overlap(a, b)
  return Math.abs(a.toMs - b.toMs) < SLACK_MIN * MINUTE
}
