/**
 * What a nozzle looks like by now, for the stand-in microscope: the middle of its bore, its mouth a little wider. By
 * its other gauges alone: what the stand-in shows must not follow from what it has shown before.
 */
import { boreAt, borePosterior } from '#core/wear'
import type { Connection } from '../../db/client'
import { notFound } from '../entry/refusal'
import { sistersPrior } from './sisters'
import { nozzleLogs, wearHistoryOf } from './history'

/** A mouth flares as it wears: this share of what the bore has grown. */
const FLARE_OF_GROWTH = 0.2

export async function boreForStage(db: Connection, nozzleId: number): Promise<{ boreMm: number; nominalMm: number }> {
  const [log] = await nozzleLogs(db, [nozzleId])
  if (!log) notFound('This nozzle')
  const { material, bore } = wearHistoryOf(log)
  const { prior } = await sistersPrior(db, material, nozzleId)
  const others = { ...bore, observations: bore.observations.filter(o => o.kind !== 'picture') }
  const boreMm = boreAt(borePosterior(others, prior, log.law), log.wearKg).quantile(0.5)
  const { nominalMm } = bore
  return { boreMm: boreMm + FLARE_OF_GROWTH * Math.max(0, boreMm - nominalMm), nominalMm }
}
