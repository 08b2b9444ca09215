/** Lives of nozzles by their type and by what wore them, from what gauges found. */
import { sql } from 'drizzle-orm'
import {
  boreLifeSpread,
  FEWEST_FAILURES,
  fitWeibull,
  foundPast,
  lifeRecordOf,
  weibullRanges,
  type LifeRecord,
} from '#core/life'
import type { LogNormalPrior } from '#core/wear'
import type { TypeLife } from '#shared/answers/lives'
import type { Connection } from '../../db/client'
import { sistersPrior } from './forecasts'
import { boreReading, nozzleLogs, outweighedGauges, wearHistoryOf, type NozzleLog } from './history'

/** A filler that brought this share of a nozzle's wear is what wore it. */
const MAIN_SHARE = 0.8

interface State {
  nozzle_id: number
  retired: boolean
  on_forecast: boolean
  prior: LogNormalPrior
}

/** All types that have nozzles: all together, and by what wore them where that differs. */
export async function typeLives(db: Connection): Promise<TypeLife[]> {
  const states = await db.execute<State & Record<string, unknown>>(sql`
    select f.nozzle_id, coalesce(e.kind = 'retire', false) retired, f.past_chance >= s.accepted_risk on_forecast,
      f.detail->'prior' prior
    from forecasts f cross join settings s left join lateral (select kind from standing_fittings x
      where x.nozzle_id = f.nozzle_id order by x.occurred_at desc, x.id desc limit 1) e on true`)
  const wear = await db.execute<{ nozzle_id: number; filler: string; kg: number }>(sql`
    select nozzle_id, filler, sum(wear_kg) kg from standing_run_tools group by nozzle_id, filler`)
  const logs = await nozzleLogs(
    db,
    states.map(s => s.nozzle_id),
  )
  const lives = logs
    .map(log => {
      const state = states.find(s => s.nozzle_id === log.nozzleId)!
      return { log, ...lifeOf(log, state), filler: mainFiller(wear.filter(w => w.nozzle_id === log.nozzleId)) }
    })
    .sort((a, b) => a.log.tag.localeCompare(b.log.tag, 'en', { numeric: true }))
  const out: TypeLife[] = []
  for (const typeId of new Set(lives.map(l => l.log.type.id))) {
    const of = lives.filter(l => l.log.type.id === typeId)
    const fillers = [...new Set(of.map(l => l.filler).filter(f => f !== null))]
    const { type } = of[0]!.log
    const model = await modelOf(db, type)
    for (const filler of [null, ...(fillers.length > 1 ? fillers : [])]) {
      const group = filler === null ? of : of.filter(l => l.filler === filler)
      out.push({
        typeId,
        typeName: type.name,
        material: type.material,
        filler,
        nozzles: group.map(({ log, end, record }) => ({ id: log.nozzleId, tag: log.tag, end, record })),
        ...fitted(group.flatMap(l => l.record ?? [])),
        model,
      })
    }
  }
  return out.sort((a, b) => a.typeName.localeCompare(b.typeName, 'en', { numeric: true }))
}

function lifeOf(log: NozzleLog, state: State) {
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
  const outweighed = judged.some(g => g.isPast) ? outweighedGauges(log, state.prior) : new Set<number>()
  const gauges = judged.filter(g => !outweighed.has(g.id))
  const { wasUsed } = log
  return lifeRecordOf({ wasUsed, isRetired: state.retired, isOnForecast: state.on_forecast, gauges })
}

/** What wore a nozzle; null for one that nothing has gone through. */
function mainFiller(wear: { filler: string; kg: number }[]): NonNullable<TypeLife['filler']> | null {
  const all = wear.reduce((s, w) => s + w.kg, 0)
  if (all === 0) return null
  const main = wear.find(w => w.kg >= MAIN_SHARE * all)
  return (main?.filler as TypeLife['filler']) ?? 'several'
}

/** Fits by the records they were made of: the same records say the same. */
const known = new Map<string, Pick<TypeLife, 'fit' | 'cannotTell'>>()

function fitted(records: LifeRecord[]): Pick<TypeLife, 'fit' | 'cannotTell'> {
  const key = JSON.stringify(records)
  let made = known.get(key)
  if (!made) {
    if (known.size >= 500) known.clear()
    made = fit(records)
    known.set(key, made)
  }
  return made
}

function fit(records: LifeRecord[]): Pick<TypeLife, 'fit' | 'cannotTell'> {
  const failed = records.filter(r => r.kind !== 'survived').length
  if (failed < FEWEST_FAILURES) return { fit: null, cannotTell: tooFew(failed) }
  const found = fitWeibull(records)
  if ('cannotTell' in found) return { fit: null, cannotTell: found.cannotTell }
  const { shape, scale, b10, mean } = found
  return { fit: { shape, scale, b10, mean, ranges: weibullRanges(records, found) }, cannotTell: null }
}
const tooFew = (failed: number) =>
  `${failed === 0 ? 'none was' : `only ${failed} ${failed === 1 ? 'was' : 'were'}`} found past the limit; ` +
  `${FEWEST_FAILURES} are needed`

async function modelOf(db: Connection, type: NozzleLog['type']): Promise<TypeLife['model']> {
  if (type.boreGrowthLimit === null) return null
  const { prior, sisters } = await sistersPrior(db, type.material, null)
  return { ...boreLifeSpread(type.nominalBoreMm, type.boreGrowthLimit, prior, 1), sisters }
}
