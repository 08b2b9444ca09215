/** What a nozzle's log says of its life, kept with its forecast: which gauges found it past its limit, what wore it. */
import { sql } from 'drizzle-orm'
import { foundPast, type NozzleLife } from '#core/life'
import type { LogNormalPrior } from '#core/wear'
import type { TypeLife } from '#shared/answers/lives'
import type { Connection } from '../../db/client'
import { boreReading, outweighedGauges, wearHistoryOf, type NozzleLog } from './history'

export interface LifeFacts {
  wasUsed: boolean
  gauges: NozzleLife['gauges']
  /** What wore it; null for one that nothing has gone through. */
  filler: NonNullable<TypeLife['filler']> | null
}

/** A filler that brought this share of a nozzle's wear is what wore it. */
const MAIN_SHARE = 0.8

export async function lifeFacts(db: Connection, log: NozzleLog, prior: LogNormalPrior): Promise<LifeFacts> {
  const { rules, bore, tip } = wearHistoryOf(log)
  const judged = log.gauges.map(g => ({
    id: g.id,
    wearKg: g.wearKg,
    isPast: foundPast(
      rules,
      bore.nominalMm,
      boreReading(g, log.scatter),
      g.tipMm === null ? null : tip.tip0.meanMm - g.tipMm,
    ),
  }))
  // a gauge that the others outweigh counts as misread, here as in the forecast
  const outweighed = judged.some(g => g.isPast) ? outweighedGauges(log, prior) : new Set<number>()
  const wear = await db.execute<{ filler: string; kg: number }>(sql`
    select filler, sum(wear_kg) kg from standing_run_tools where nozzle_id = ${log.nozzleId} group by filler`)
  return {
    wasUsed: log.wasUsed,
    gauges: judged.filter(g => !outweighed.has(g.id)).map(({ wearKg, isPast }) => ({ wearKg, isPast })),
    filler: mainFiller(wear),
  }
}

function mainFiller(wear: readonly { filler: string; kg: number }[]): LifeFacts['filler'] {
  const all = wear.reduce((s, w) => s + w.kg, 0)
  if (all === 0) return null
  const main = wear.find(w => w.kg >= MAIN_SHARE * all)
  return (main?.filler as LifeFacts['filler']) ?? 'several'
}
