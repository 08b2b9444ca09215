/** What the sheet of a survey holds while it is typed, and what is made of it. */
import { FEWEST_READINGS, type ChamberSize, type ReadSurveyTable, type Survey, type SurveyState } from '#core/chamber'
import type { AirPlace } from '#core/limits'
import { sent } from '~/words/numbers'

export interface TypedProbe {
  name: string
  place: AirPlace
  xMm: number | null
  yMm: number | null
  zMm: number | null
  /** Of the thermometer; null: it is not on one. */
  channel: number | null
}
/** Read at one time, minutes from the first. */
export interface TypedRow {
  min: number | null
  roomC: number | null
  readC: (number | null)[]
}
export interface SurveyForm extends Record<keyof ChamberSize, number | null> {
  opening: SurveyState['opening']
  fan: boolean | null
  gapMm: number | null
  bedC: number | null
  chamberSetC: number | null
  shielded: boolean
  probeUC: number | null
  probes: TypedProbe[]
  roomChannel: number | null
  rows: TypedRow[]
  /** When the thermometer was read first; null before. */
  since: string | null
  note: string
  occurredAt: string
}

const USUAL_SIZE: ChamberSize = { widthMm: 350, depthMm: 350, heightMm: 400 }
/** A probe of a thermocouple with its meter; common practice, no source. */
const USUAL_PROBE_UC = 1

export const emptyRow = (probes: number): TypedRow => ({
  min: null,
  roomC: null,
  readC: Array.from({ length: probes }, () => null),
})
export function startForm(size: ChamberSize | null, bedC: number | null, chamberSetC: number | null): SurveyForm {
  const of = size ?? USUAL_SIZE
  const probe = (name: string, place: AirPlace, [x, y, z]: [number, number, number], channel: number): TypedProbe => ({
    name,
    place,
    xMm: Math.round(x * of.widthMm),
    yMm: Math.round(y * of.depthMm),
    zMm: Math.round(z * of.heightMm),
    channel,
  })
  return {
    ...of,
    opening: 'shut',
    fan: null,
    gapMm: null,
    bedC,
    chamberSetC,
    shielded: true,
    probeUC: USUAL_PROBE_UC,
    probes: [probe('P1', 'low', [0.5, 0.2, 0.1], 1), probe('P2', 'high', [0.6, 0.8, 0.93], 2)],
    roomChannel: 4,
    rows: Array.from({ length: FEWEST_READINGS }, () => emptyRow(2)),
    since: null,
    note: '',
    occurredAt: new Date().toISOString(),
  }
}

export const isEmpty = (r: TypedRow) => r.min === null && r.roomC === null && r.readC.every(c => c === null)
export const wholeRows = (rows: readonly TypedRow[]) => rows.filter(r => !isEmpty(r))
const isNumber = (n: number | null): n is number => n !== null && !Number.isNaN(n)

export function bodyOf(v: SurveyForm): Record<string, unknown> {
  const rows = wholeRows(v.rows)
  const first = rows[0]?.min ?? 0
  return {
    state: { opening: v.opening, fan: v.fan, gapMm: sent(v.gapMm) ?? 0 },
    size: { widthMm: sent(v.widthMm), depthMm: sent(v.depthMm), heightMm: sent(v.heightMm) },
    timesS: rows.map(r => (isNumber(r.min) ? (r.min - first) * 60 : sent(r.min))),
    roomC: rows.map(r => sent(r.roomC)),
    probes: v.probes.map(({ channel: _, ...p }, i) => ({
      ...p,
      xMm: sent(p.xMm),
      yMm: sent(p.yMm),
      zMm: sent(p.zMm),
      readC: rows.map(r => sent(r.readC[i] ?? null)),
    })),
    bedC: sent(v.bedC),
    chamberSetC: sent(v.chamberSetC),
    shielded: v.shielded,
    probeUC: sent(v.probeUC),
    note: v.note,
    occurredAt: v.occurredAt,
  }
}

/** The survey as the core takes it, as it is shown; null while something of it is half typed. */
export function surveyOf(v: SurveyForm, tauS: number): Survey | null {
  const rows = wholeRows(v.rows)
  const numbers = [v.bedC, v.probeUC, ...v.probes.flatMap(p => [p.xMm, p.yMm, p.zMm]), ...rows.map(r => r.min)]
  const cells = [v.chamberSetC, ...rows.flatMap(r => [r.roomC, ...r.readC])]
  if (rows.length === 0 || v.probes.length === 0 || !numbers.every(isNumber) || cells.some(c => Number.isNaN(c ?? 0)))
    return null
  const first = rows[0]!.min!
  return {
    timesS: rows.map(r => (r.min! - first) * 60),
    roomC: rows.map(r => r.roomC),
    probes: v.probes.map((p, i) => ({
      name: p.name,
      place: p.place,
      xMm: p.xMm!,
      yMm: p.yMm!,
      zMm: p.zMm!,
      readC: rows.map(r => r.readC[i] ?? null),
    })),
    bedC: v.bedC!,
    chamberSetC: v.chamberSetC,
    tauS,
    shielded: v.shielded,
    probeUC: v.probeUC!,
  }
}

/** A file's readings in place of those typed; probes beyond those placed are added, for a person to place. */
export function takeTable(v: SurveyForm, t: ReadSurveyTable): void {
  v.probes = t.probes.map(
    (p, i) =>
      v.probes.find(q => q.name === p.name) ?? {
        ...(v.probes[i] ?? { place: 'high' as const, xMm: null, yMm: null, zMm: null, channel: null }),
        name: p.name.slice(0, 30),
      },
  )
  v.rows = t.timesS.map((s, k) => ({
    min: s / 60,
    roomC: t.roomC?.[k] ?? null,
    readC: t.probes.map(p => p.readC[k] ?? null),
  }))
}
export function addProbe(v: SurveyForm): void {
  const used = new Set(v.probes.map(p => p.channel))
  const channel = [1, 2, 3, 4].find(c => !used.has(c) && c !== v.roomChannel) ?? null
  let n = v.probes.length + 1
  while (v.probes.some(p => p.name === `P${n}`)) n++
  v.probes.push({ name: `P${n}`, place: 'high', xMm: null, yMm: null, zMm: null, channel })
  for (const r of v.rows) r.readC.push(null)
}
export function removeProbe(v: SurveyForm, i: number): void {
  v.probes.splice(i, 1)
  for (const r of v.rows) r.readC.splice(i, 1)
}
