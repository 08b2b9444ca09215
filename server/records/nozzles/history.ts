/** What the log says of nozzles, put in the words of core/wear. */
import { inArray, sql } from 'drizzle-orm'
import { randomPart, type Budget } from '#core/imaging'
import {
  beyondBore,
  borePosterior,
  pictureReading,
  PIN_U_MM,
  takenForMisread,
  TIP_RECEIPT_U_MM,
  TIP_U_MM,
  type BoreHistory,
  type BoreObservation,
  type Law,
  type LogNormalPrior,
  type NozzleMaterial,
  type RetireRules,
  type TipHistory,
} from '#core/wear'
import type { Connection } from '../../db/client'
import type { gauges, nozzleTypes } from '../../db/schema'
import * as schema from '../../db/schema'
import { countedPins } from '../pins/book'
import { methodScatter, type MethodScatter } from '../studies/scatter'

export type NozzleType = typeof nozzleTypes.$inferSelect
/** Of what its picture showed only the budget, the rest is for the nozzle's page alone. */
export type Gauge = Omit<typeof gauges.$inferSelect, 'picture'> & { budget: Budget | null }

export interface NozzleLog {
  nozzleId: number
  tag: string
  law: Law
  wasUsed: boolean
  type: NozzleType
  /** Random parts that gauge studies have set. */
  scatter: MethodScatter
  /** Standing gauges with the wear mass that had gone through by then. */
  gauges: (Gauge & { wearKg: number })[]
  wearKg: number
  fibreG: number
  extrudedG: number
  /** Abrasivity and name of the last filled filament. */
  lastFilled: { abrasivity: number; material: string } | null
  /** Wear mass of the latest run, kg, and its name. */
  lastRun: { wearKg: number; fibreG: number; name: string; material: string } | null
}

export function wearHistoryOf(log: NozzleLog): {
  material: NozzleMaterial
  bore: BoreHistory
  tip: TipHistory
  rules: RetireRules
} {
  const { type } = log
  const receipt = log.gauges.find(g => g.kind === 'receipt')
  return {
    material: type.material,
    bore: {
      nominalMm: type.nominalBoreMm,
      wasUsed: log.wasUsed,
      observations: log.gauges.map(g => boreReading(g, log.scatter)).filter(o => o !== null),
    },
    tip: {
      tip0:
        receipt?.tipMm != null
          ? { meanMm: receipt.tipMm, uMm: receipt.tipUMm ?? TIP_U_MM }
          : { meanMm: type.lengthMm, uMm: TIP_RECEIPT_U_MM },
      observations: log.gauges
        .filter(g => g !== receipt && g.tipMm !== null)
        .map(g => ({ wearKg: g.wearKg, tipMm: g.tipMm!, uMm: g.tipUMm ?? TIP_U_MM })),
    },
    rules: {
      boreLimitMm: boreLimitMm(type),
      tipLossLimitMm: type.tipLossLimitMm,
      massLimitKg: type.massLimitKg,
    },
  }
}

/**
 * What a gauge says of the bore, in the words of the core; null when it says nothing. Its random part is what a study
 * of its method has found, where there is one.
 */
export function boreReading(
  g: Pick<Gauge, 'goMm' | 'noGoMm' | 'goPin' | 'noGoPin' | 'valueMm' | 'uMm' | 'setupId' | 'uSharedMm' | 'budget'> & {
    wearKg: number
    occurredAt: Date
  },
  scatter: MethodScatter,
): BoreObservation | null {
  const uMm = g.uMm ?? PIN_U_MM
  if (g.valueMm !== null && g.setupId !== null && g.uSharedMm !== null) {
    const studyMm = scatter.setups.get(g.setupId) ?? null
    const u = studyMm === null || !g.budget ? uMm : Math.hypot(g.uSharedMm, randomPart(g.budget, studyMm))
    return pictureReading(g.wearKg, g.valueMm, u, g.uSharedMm, String(g.setupId))
  }
  if (g.valueMm !== null) return { kind: 'value', wearKg: g.wearKg, valueMm: g.valueMm, uMm }
  if (g.goMm === null && g.noGoMm === null) return null
  const { wearKg, goPin, noGoPin } = g
  const random = scatter.pinsMm === null ? {} : { uRandomMm: scatter.pinsMm }
  const { go, noGo } = countedPins(g, g.occurredAt, scatter.pins)
  // a certificate tells the size; how far the feel of a pin scatters only a study tells, and until then that is in ±
  const sure = (certified: number) => (scatter.pinsMm === null ? Math.max(certified, uMm) : certified)
  return {
    kind: 'pins',
    wearKg,
    goMm: go?.sizeMm ?? g.goMm,
    noGoMm: noGo?.sizeMm ?? g.noGoMm,
    uMm,
    goPin,
    noGoPin,
    ...(go ? { goUMm: sure(go.uMm) } : {}),
    ...(noGo ? { noGoUMm: sure(noGo.uMm) } : {}),
    ...random,
  }
}

/** The pins of a gauge as they count: by their certificates where they have one. */
export function countedPair(
  g: Gauge & { wearKg: number },
  scatter: MethodScatter,
): { goMm: number | null; noGoMm: number | null } {
  const reading = boreReading(g, scatter)
  return reading?.kind === 'pins' ? { goMm: reading.goMm, noGoMm: reading.noGoMm } : { goMm: g.goMm, noGoMm: g.noGoMm }
}

/** What the value of a gauge counts with, mm; null for pins and for none. */
export function countedU(g: NozzleLog['gauges'][number], scatter: MethodScatter): number | null {
  const reading = boreReading(g, scatter)
  if (reading === null || reading.kind === 'pins') return null
  return reading.kind === 'picture' ? Math.hypot(reading.uMm, reading.uSharedMm) : reading.uMm
}

/** Gauges that the others outweigh, by their ids: they count as misread. */
export function outweighedGauges(log: NozzleLog, prior: LogNormalPrior): Set<number> {
  const misread = takenForMisread(wearHistoryOf(log).bore, prior, log.law)
  return new Set(
    log.gauges
      .filter(g => boreReading(g, log.scatter) !== null)
      .filter((_, i) => misread[i])
      .map(g => g.id),
  )
}

/** Set-ups whose pictures show the nozzle wider than its other gauges do, surely and by something worth saying. */
export function widerThanBore(log: NozzleLog, prior: LogNormalPrior): { setup: string; meanMm: number; uMm: number }[] {
  const { bore } = wearHistoryOf(log)
  const pictures = bore.observations.filter(o => o.kind === 'picture')
  // without a gauge of another kind nothing tells the mouth from the narrowest section
  if (pictures.length === 0 || pictures.length === bore.observations.length) return []
  const p = borePosterior(bore, prior, log.law)
  return [...new Map(pictures.map(o => [o.setup, o])).values()]
    .map(o => {
      const { meanMm, uMm } = beyondBore(p, bore, o)
      return { setup: o.setup, meanMm, uMm }
    })
    .filter(b => b.meanMm > SURELY * b.uMm && b.meanMm > WORTH_SAYING_MM)
}
const SURELY = 2.5
const WORTH_SAYING_MM = 0.004

/** Retire limit of the bore, mm: relative to nominal, also for a nozzle that came used; null without such a rule. */
export function boreLimitMm(type: Pick<NozzleType, 'nominalBoreMm' | 'boreGrowthLimit'>): number | null {
  return type.boreGrowthLimit === null ? null : type.nominalBoreMm * (1 + type.boreGrowthLimit)
}

/** Wear mass that had gone through a nozzle by a moment, kg: what a gauge taken then is placed at. */
export async function wearBy(db: Connection, nozzleId: number, at: Date): Promise<number> {
  const [row] = await db.execute<{ kg: number }>(sql`
    select coalesce(sum(wear_kg), 0) kg from standing_run_tools
    where nozzle_id = ${nozzleId} and ended_at <= ${at.toISOString()}`)
  return row!.kg
}

/** Logs of the nozzles asked for, in no order. */
export async function nozzleLogs(db: Connection, ids: number[]): Promise<NozzleLog[]> {
  if (ids.length === 0) return []
  const rows = await db
    .select({ nozzle: schema.nozzles, type: schema.nozzleTypes })
    .from(schema.nozzles)
    .innerJoin(schema.nozzleTypes, sql`${schema.nozzleTypes.id} = ${schema.nozzles.typeId}`)
    .where(inArray(schema.nozzles.id, ids))
  const list = sql.join(
    ids.map(i => sql`${i}`),
    sql`, `,
  )
  const totals = await db.execute<{ nozzle_id: number; wear_kg: number; fibre_g: number; extruded_g: number }>(sql`
    select nozzle_id, sum(wear_kg) wear_kg, sum(fibre_g) fibre_g, sum(extruded_g) extruded_g
    from standing_run_tools where nozzle_id in (${list}) group by nozzle_id`)
  const gaugeRows = await db.execute<
    Record<string, unknown> & { id: string; nozzle_id: number; wear_before: number }
  >(sql`
    select g.id, g.nozzle_id, g.kind, g.go_mm, g.no_go_mm, g.go_pin, g.no_go_pin, g.value_mm, g.u_mm, g.setup_id,
      g.u_shared_mm, g.blob, g.picture->'budget' budget, g.tip_mm, g.tip_u_mm, g.shape, g.note, g.occurred_at,
      g.person_id, g.recorded_at,
      case when g.kind = 'receipt' then 0 else coalesce((
      select sum(t.wear_kg) from standing_run_tools t join runs r on r.id = t.run_id
      where t.nozzle_id = g.nozzle_id and (t.ended_at < g.occurred_at or (t.ended_at = g.occurred_at
      and r.recorded_at <= g.recorded_at))
    ), 0) end wear_before
    from standing_gauges g where g.nozzle_id in (${list}) order by g.occurred_at, g.id`)
  const last = await db.execute<{
    nozzle_id: number
    abrasivity: number
    material_name: string
    filled: boolean
    wear_kg: number
    fibre_g: number
    name: string
    place: string
  }>(sql`
    select * from (
      select t.nozzle_id, t.abrasivity, t.material_name, t.filler_fraction > 0 filled, t.wear_kg, t.fibre_g, r.name,
        row_number() over (partition by t.nozzle_id, t.filler_fraction > 0 order by t.ended_at desc, t.id desc) place,
        t.ended_at, t.id
      from standing_run_tools t join runs r on r.id = t.run_id where t.nozzle_id in (${list})
    ) x where place = 1 order by ended_at desc, id desc`)
  const scatter = await methodScatter(db)
  return rows.map(({ nozzle, type }) => {
    const total = totals.find(t => t.nozzle_id === nozzle.id)
    const latest = last.filter(r => r.nozzle_id === nozzle.id)
    const filled = latest.find(r => r.filled)
    const lastRun = filled ?? latest[0]
    return {
      nozzleId: nozzle.id,
      tag: nozzle.tag,
      law: nozzle.law,
      wasUsed: nozzle.wasUsed,
      type,
      scatter,
      gauges: gaugeRows.filter(g => g.nozzle_id === nozzle.id).map(toGauge),
      wearKg: total?.wear_kg ?? 0,
      fibreG: total?.fibre_g ?? 0,
      extrudedG: total?.extruded_g ?? 0,
      lastFilled: filled ? { abrasivity: filled.abrasivity, material: filled.material_name } : null,
      lastRun: lastRun
        ? { wearKg: lastRun.wear_kg, fibreG: lastRun.fibre_g, name: lastRun.name, material: lastRun.material_name }
        : null,
    }
  })
}

function toGauge(r: Record<string, unknown>): Gauge & { wearKg: number } {
  return {
    id: Number(r.id),
    nozzleId: r.nozzle_id as number,
    kind: r.kind as Gauge['kind'],
    goMm: r.go_mm as number | null,
    noGoMm: r.no_go_mm as number | null,
    goPin: r.go_pin as string | null,
    noGoPin: r.no_go_pin as string | null,
    valueMm: r.value_mm as number | null,
    uMm: r.u_mm as number | null,
    setupId: r.setup_id as number | null,
    uSharedMm: r.u_shared_mm as number | null,
    blob: r.blob as string | null,
    budget: r.budget as Budget | null,
    tipMm: r.tip_mm as number | null,
    tipUMm: r.tip_u_mm as number | null,
    shape: r.shape as string[],
    note: r.note as string,
    occurredAt: new Date(r.occurred_at as string),
    personId: r.person_id as number,
    recordedAt: new Date(r.recorded_at as string),
    wearKg: r.wear_before as number,
  }
}
