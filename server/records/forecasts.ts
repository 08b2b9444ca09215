/**
 * Forecasts are derived from the log and kept in a table that can be thrown away. A save works out its own nozzle's at
 * once; what its sisters learn from it is worked out in the background (`refreshStale`).
 */
import { createHash } from 'node:crypto'
import { eq, sql } from 'drizzle-orm'
import { forecast, pooledPrior, sisterTerm, sumTerms, type NozzleForecast } from '../../core/wear'
import type { Connection, Database } from '../db/client'
import { forecasts, type ForecastDetail } from '../db/schema'
import { canonical } from './answers'
import { historyOf, nozzleLogs, type NozzleLog } from './history'

export interface Refreshed { log: NozzleLog, forecast: NozzleForecast, sisters: number, prior: { meanLn: number, sd: number } }

const LOCK = 720_417

/**
 * Forecasts are worked out one after the other, from here to the end of the transaction: whoever comes second sees what
 * the first one saved, and no news between sisters is lost. Some 20 ms each, which a shop never notices.
 */
async function oneAtATime(db: Connection): Promise<void> {
  await db.execute(sql`select pg_advisory_xact_lock(${LOCK})`)
}

/** Works out one nozzle's forecast anew, stores it, and marks its sisters when it has something new to tell them. */
export async function refreshForecast(db: Connection, nozzleId: number): Promise<Refreshed> {
  await oneAtATime(db)
  const [log] = await nozzleLogs(db, [nozzleId])
  const { material, bore, tip, rules } = historyOf(log!)
  const sisterRows = await db.execute<{ sister_term: number[] }>(sql`
    select f.sister_term from forecasts f join nozzles n on n.id = f.nozzle_id join nozzle_types t on t.id = n.type_id
    where t.material = ${material} and f.nozzle_id <> ${nozzleId} and f.sister_term is not null order by f.nozzle_id`)
  const sisters = sisterRows.map(r => Float64Array.from(r.sister_term))
  const prior = pooledPrior(material, sumTerms(sisters), sisters.length)
  const [{ risk }] = await db.execute<{ risk: number }>(sql`select accepted_risk risk from settings`) as unknown as [{ risk: number }]
  const input = { material, law: log!.law, bore, tip, rules, wearKg: log!.wearKg, prior, acceptedRisk: risk }
  const made = forecast(input)
  const term = sisterTerm(bore, material)
  const basis = createHash('sha256').update(canonical(input)).digest('hex')
  const values = {
    nozzleId, basis, stale: false, sisterTerm: term ? Array.from(term) : null, wearKg: log!.wearKg, fibreG: log!.fibreG,
    leftKg: finite(made.leftKg.median), leftLowKg: finite(made.leftKg.low80), leftHighKg: finite(made.leftKg.high80),
    nextGaugeKg: finite(made.nextGaugeKg), pastChance: made.pastChance,
    detail: { forecast: made, sisters: sisters.length, prior } satisfies ForecastDetail, computedAt: new Date(),
  }
  const [before] = await db.select({ sisterTerm: forecasts.sisterTerm }).from(forecasts).where(eq(forecasts.nozzleId, nozzleId))
  await db.insert(forecasts).values(values).onConflictDoUpdate({ target: forecasts.nozzleId, set: values })
  if (canonical(before?.sisterTerm ?? null) !== canonical(values.sisterTerm)) {
    await db.execute(sql`
      update forecasts set stale = true where not stale and nozzle_id <> ${nozzleId} and nozzle_id in (
        select n.id from nozzles n join nozzle_types t on t.id = n.type_id where t.material = ${material})`)
  }
  return { log: log!, forecast: made, sisters: sisters.length, prior }
}

const finite = (v: number) => Math.min(v, 1e9)

/** The background job: works out stale forecasts, each in its own short transaction; several processes may share the work. */
export async function refreshStale(db: Database, most = 50): Promise<number> {
  let done = 0
  while (done < most) {
    const found = await db.transaction(async tx => {
      await oneAtATime(tx)
      const [row] = await tx.execute<{ nozzle_id: number }>(sql`select nozzle_id from forecasts where stale order by nozzle_id limit 1`)
      if (!row) return false
      await refreshForecast(tx, row.nozzle_id)
      return true
    })
    if (!found) break
    done++
  }
  if (done > 0) await db.execute(sql`select pg_notify('iron_nozzle', 'forecasts')`)
  return done
}

/** Every nozzle that has none yet (a database from before, or one where they were thrown away). */
export async function refreshMissing(db: Database): Promise<number> {
  const rows = await db.execute<{ id: number }>(sql`select n.id from nozzles n left join forecasts f on f.nozzle_id = n.id where f.nozzle_id is null order by n.id`)
  for (const r of rows) await db.transaction(tx => refreshForecast(tx, r.id))
  return rows.length
}
