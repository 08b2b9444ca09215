/** Gauges of bore, tip and shape. */
import type { GaugeEffect } from '#shared/answers/nozzles'
import { eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { fillerKgFor, isOfPin, PIN_U_MM, TIP_U_MM } from '#core/wear'
import { mmNumber } from '#core/words'
import type { gaugeSchema } from '#shared/entries/nozzles'
import type { Question } from '#shared/problem'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { gauges, nozzles } from '../../db/schema'
import { certifiedPins, isCertifiedPair, keyOfMark, type PinBook } from '../pins/book'
import { keepBlob } from '../pictures/blobs'
import { methodScatter } from '../studies/scatter'
import { setupOf } from '../pictures/setups'
import { answerUnexpected, unexpectedBore } from './unexpected-gauge'
import { fibreLeft, range80Of, refreshForecast } from './forecasts'
import { boreReading, outweighedGauges, wearBy } from './history'
import { ask, notInFuture, refuseField } from '../entry/refusal'

type GaugeIn = Omit<z.output<typeof gaugeSchema>, 'replaces'>

/** Stores a gauge; what it did to its nozzle is for the caller to work out, once for several. */
export async function storeGauge(
  tx: Connection,
  g: GaugeIn,
  personId: number,
  kind: 'receipt' | 'service' = 'service',
): Promise<{ id: number; tag: string; isUnexpected: boolean }> {
  const occurredAt = notInFuture('occurredAt', g.occurredAt)
  const [nozzle] = await tx.select().from(nozzles).where(eq(nozzles.id, g.nozzleId)).for('no key update')
  if (!nozzle) refuseField('nozzleId', 'This nozzle is not known')
  const wearKg = kind === 'receipt' ? 0 : await wearBy(tx, g.nozzleId, occurredAt)
  const setup = g.picture && (await setupOf(tx, g.picture.setupId, 'picture.setupId'))
  const shared = { setupId: setup?.id ?? null, uSharedMm: g.picture?.uSharedMm ?? null }
  const budget = g.picture?.budget ?? null
  const scatter = await methodScatter(tx)
  const reading = boreReading({ ...g, ...shared, budget, wearKg, occurredAt }, scatter)
  const pin = g.noGoMm !== null ? 'noGoMm' : 'goMm'
  const unexpected = reading && (await unexpectedBore(tx, g.nozzleId, reading, g.valueMm !== null ? 'valueMm' : pin))
  ask(
    [
      ...pinQuestions(g, scatter.pins, occurredAt),
      ...(unexpected ? [unexpected] : []),
      ...(await longerTip(tx, g, occurredAt)),
    ],
    g.confirmed,
  )
  if (unexpected) await answerUnexpected(tx, g.nozzleId, g.confirmed, occurredAt, personId)
  const [saved] = await tx
    .insert(gauges)
    .values({
      nozzleId: g.nozzleId,
      kind,
      goMm: g.goMm,
      noGoMm: g.noGoMm,
      goPin: g.goMm === null ? null : g.goPin,
      noGoPin: g.noGoMm === null ? null : g.noGoPin,
      valueMm: g.valueMm,
      uMm: reading === null ? null : (g.uMm ?? PIN_U_MM),
      tipMm: g.tipMm,
      tipUMm: g.tipMm === null ? null : (g.tipUMm ?? TIP_U_MM),
      shape: g.shape,
      ...shared,
      ...(await keptPicture(tx, g.picture)),
      note: g.note,
      occurredAt,
      personId,
    })
    .returning({ id: gauges.id })
  return { id: saved!.id, tag: nozzle.tag, isUnexpected: unexpected !== null }
}

/** A pin of the book is the size that was typed for it, is not withdrawn, and two of them are still a pair. */
function pinQuestions(g: GaugeIn, book: PinBook, at: Date): Question[] {
  const questions: Question[] = []
  for (const [markField, sizeField] of [
    ['goPin', 'goMm'],
    ['noGoPin', 'noGoMm'],
  ] as const) {
    const pin = g[markField] === null ? undefined : book.get(keyOfMark(g[markField]))
    const typed = g[sizeField]
    if (pin === undefined || typed === null) continue
    if (!isOfPin(typed, pin.nominalMm, pin.certificates))
      refuseField(markField, `Pin ${pin.mark} is ${mmNumber(pin.nominalMm)} mm; ${mmNumber(typed)} mm was typed`)
    if (pin.withdrawn)
      questions.push({
        code: `pin-withdrawn:${pin.mark}`,
        field: markField,
        message: `Pin ${pin.mark} was taken out of use. Was it this one?`,
      })
  }
  if (!isCertifiedPair(g, certifiedPins(g, at, book)))
    refuseField(
      g.goPin === null ? 'noGoPin' : 'goPin',
      'By what these pins measure the one that goes is not the smaller: take another pair',
    )
  return questions
}

/** In place of a receipt stands a receipt. */
export async function gaugeKind(tx: Connection, replaces: { id: number } | null): Promise<'receipt' | 'service'> {
  if (replaces === null) return 'service'
  const [was] = await tx.select({ kind: gauges.kind }).from(gauges).where(eq(gauges.id, replaces.id))
  return was?.kind ?? 'service'
}

/** Stores a gauge and says at once what it did to its nozzle. */
export async function saveGauge(
  tx: Connection,
  g: GaugeIn,
  personId: number,
  kind: 'receipt' | 'service' = 'service',
): Promise<GaugeEffect> {
  const { id, tag, isUnexpected } = await storeGauge(tx, g, personId, kind)
  const { log, forecast, prior } = await refreshForecast(tx, g.nozzleId)
  const outweighed = isUnexpected && outweighedGauges(log, prior).has(id)
  const fibre = (kg: number) =>
    log.lastFilled && Number.isFinite(kg) ? fillerKgFor(kg, log.lastFilled.abrasivity) : null
  return {
    gaugeId: id,
    tag,
    boreMm: range80Of(forecast.bore),
    leftFibreKg: log.lastFilled && fibreLeft(forecast.leftKg, log.lastFilled.abrasivity),
    leftMaterial: log.lastFilled?.material ?? null,
    pastChance: forecast.pastChance,
    nextGaugeFibreKg: fibre(forecast.nextGaugeKg),
    outweighed,
  }
}

/** What is stored of a picture: its facts, and the hash of its crop, whose bytes are kept once. */
async function keptPicture(tx: Connection, p: GaugeIn['picture']) {
  if (p === null) return { picture: null, blob: null }
  const { setupId: _setup, uSharedMm: _shared, crop, ...facts } = p
  const { base64, ...place } = crop
  return { picture: { ...facts, crop: place }, blob: await keepBlob(tx, 'picture.crop.base64', base64) }
}

/** The question where a tip got longer. */
export const LONGER_TIP = 'longer-tip'
/** A tip does not grow: asks when this one is longer than the last by more than both tolerances. */
async function longerTip(tx: Connection, g: GaugeIn, at: Date): Promise<Question[]> {
  if (g.tipMm === null) return []
  const [tip] = await tx.execute<{ tip_mm: number; tip_u_mm: number; when: string }>(sql`
    select tip_mm, tip_u_mm, ${iso('occurred_at')} "when" from standing_gauges
    where nozzle_id = ${g.nozzleId} and occurred_at <= ${at.toISOString()} and tip_mm is not null
    order by occurred_at desc, id desc limit 1`)
  if (!tip || g.tipMm <= tip.tip_mm + 2 * Math.hypot(g.tipUMm ?? TIP_U_MM, tip.tip_u_mm)) return []
  return [
    {
      code: LONGER_TIP,
      field: 'tipMm',
      message: `Longer than at ${tip.when} (${tip.tip_mm.toFixed(2)} mm). Is the tip clean?`,
    },
  ]
}
