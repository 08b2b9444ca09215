/** Gauges of bore, tip and shape. */
import { eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { fillerKgFor, PIN_U_MM, TIP_U_MM } from '../../core/wear'
import type { gaugeSchema } from '../../shared/entries'
import type { Question } from '../../shared/problem'
import type { Connection } from '../db/client'
import { gauges, nozzles } from '../db/schema'
import { refreshForecast } from './forecasts'
import { ask, notInFuture, refuseField } from './refusal'

type GaugeIn = z.output<typeof gaugeSchema>

export interface GaugeEffect { gaugeId: number, tag: string, boreMm: number, leftFibreKg: number | null, leftMaterial: string | null, pastChance: number, nextGaugeFibreKg: number | null }

export async function saveGauge(tx: Connection, g: GaugeIn, personId: number, kind: 'receipt' | 'service' = 'service'): Promise<GaugeEffect> {
  const occurredAt = notInFuture('occurredAt', g.occurredAt)
  const [nozzle] = await tx.select().from(nozzles).where(eq(nozzles.id, g.nozzleId)).for('no key update')
  if (!nozzle) refuseField('nozzleId', 'This nozzle is not known')
  const bore = g.goMm !== null || g.noGoMm !== null || g.valueMm !== null
  const uMm = bore ? g.uMm ?? PIN_U_MM : null
  ask(await shrinking(tx, g, uMm ?? 0, occurredAt), g.confirmed)
  const [saved] = await tx.insert(gauges).values({
    nozzleId: g.nozzleId, kind, goMm: g.goMm, noGoMm: g.noGoMm, goPin: g.goMm === null ? null : g.goPin, noGoPin: g.noGoMm === null ? null : g.noGoPin,
    valueMm: g.valueMm, uMm, tipMm: g.tipMm, tipUMm: g.tipMm === null ? null : g.tipUMm ?? TIP_U_MM, shape: g.shape, note: g.note, occurredAt, personId,
  }).returning({ id: gauges.id })
  const { log, forecast } = await refreshForecast(tx, g.nozzleId)
  const fibre = (kg: number) => log.lastFilled && Number.isFinite(kg) ? fillerKgFor(kg, log.lastFilled.abrasivity) : null
  return {
    gaugeId: saved!.id, tag: nozzle.tag, boreMm: forecast.bore.median, leftFibreKg: fibre(forecast.leftKg.median), leftMaterial: log.lastFilled?.material ?? null,
    pastChance: forecast.pastChance, nextGaugeFibreKg: fibre(forecast.nextGaugeKg),
  }
}

/** A bore does not shrink: asks when this gauge lies below the last one, or the tip above, by more than both tolerances. */
async function shrinking(tx: Connection, g: GaugeIn, uMm: number, at: Date): Promise<Question[]> {
  const [last] = await tx.execute<{ low: number | null, u_mm: number, when: string }>(sql`
    select coalesce(value_mm, go_mm) low, u_mm, to_char(occurred_at, 'YYYY-MM-DD') "when" from standing_gauges
    where nozzle_id = ${g.nozzleId} and occurred_at <= ${at.toISOString()} and (value_mm is not null or go_mm is not null) order by occurred_at desc, id desc limit 1`)
  const questions: Question[] = []
  const high = g.valueMm ?? g.noGoMm
  if (last?.low != null && high !== null && high < last.low - 2 * Math.hypot(uMm, last.u_mm))
    questions.push({
      code: 'smaller-bore', field: g.valueMm !== null ? 'valueMm' : 'noGoMm',
      message: `Smaller than on ${last.when} (at least ${last.low.toFixed(3)} mm). A bore does not shrink: is it clean and cold, and is this the right nozzle?`,
    })
  const [tip] = await tx.execute<{ tip_mm: number, tip_u_mm: number, when: string }>(sql`
    select tip_mm, tip_u_mm, to_char(occurred_at, 'YYYY-MM-DD') "when" from standing_gauges
    where nozzle_id = ${g.nozzleId} and occurred_at <= ${at.toISOString()} and tip_mm is not null order by occurred_at desc, id desc limit 1`)
  if (tip && g.tipMm !== null && g.tipMm > tip.tip_mm + 2 * Math.hypot(g.tipUMm ?? TIP_U_MM, tip.tip_u_mm))
    questions.push({ code: 'longer-tip', field: 'tipMm', message: `Longer than on ${tip.when} (${tip.tip_mm.toFixed(2)} mm). Is the tip clean?` })
  return questions
}
