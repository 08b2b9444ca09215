/**
 * Forecasts are derived from the log and kept in a table that can be thrown away. A save works out its own nozzle's at
 * once; what its sisters learn from it is worked out in the background (`refreshStale`). Each row carries the version
 * of the model: after an upgrade the terms of all sisters are renewed first, then the forecasts, fitted nozzles first.
 */
import { eq, sql } from 'drizzle-orm'
import type { StudyMethod } from '#core/study'
import type { Range80 } from '#shared/answers/parts'
import {
  fillerKgFor,
  WEAR_MODEL,
  type LogNormalPrior,
  type NozzleForecast,
  type NozzleInput,
  type NozzleMaterial,
} from '#core/wear'
import type { Connection, Database } from '../../db/client'
import { idIn } from '../../db/ids'
import { forecasts, type ForecastDetail } from '../../db/schema'
import { basisOf } from '../entry/answers'
import { heavy } from '../../threads/pool'
import { wearHistoryOf, nozzleLogs, type NozzleLog } from './history'
import { lifeFacts } from './life-facts'
import { mendSums, sistersPrior, tellSisters, termOf, WORTH_SAYING } from './sisters'

export interface Refreshed {
  log: NozzleLog
  forecast: NozzleForecast
  sisters: number
  prior: LogNormalPrior
}

const LOCK = 720_417

/**
 * Forecasts are worked out one after the other, from here to the end of the transaction: whoever comes second sees what
 * the first one saved, and no news between sisters is lost. Some 20 ms each, which a shop never notices.
 */
async function oneAtATime(db: Connection): Promise<void> {
  await db.execute(sql`select pg_advisory_xact_lock(${LOCK})`)
}

/** Works out one nozzle's forecast anew, stores it, and lets its sisters know when it has something new to tell. */
export async function refreshForecast(db: Connection, nozzleId: number): Promise<Refreshed> {
  await oneAtATime(db)
  const [log] = await nozzleLogs(db, [nozzleId])
  const { material, bore, tip, rules } = wearHistoryOf(log!)
  const { prior, sisters, own } = await sistersPrior(db, material, nozzleId)
  const [{ risk }] = (await db.execute<{ risk: number }>(sql`select accepted_risk risk from settings`)) as unknown as [
    { risk: number },
  ]
  const input = { material, law: log!.law, bore, tip, rules, wearKg: log!.wearKg, prior, acceptedRisk: risk }
  const { forecast: made, term } = await heavy('wear', input)
  const basis = basisOf({ ...input, model: WEAR_MODEL })
  const values = {
    nozzleId,
    basis,
    stale: false,
    moved: null,
    sisterTerm: term ? Array.from(term) : null,
    wearKg: log!.wearKg,
    fibreG: log!.fibreG,
    leftKg: finite(made.leftKg.median),
    leftLowKg: finite(made.leftKg.low80),
    leftHighKg: finite(made.leftKg.high80),
    nextGaugeKg: finite(made.nextGaugeKg),
    pastChance: made.pastChance,
    detail: { forecast: made, sisters, prior } satisfies ForecastDetail,
    life: await lifeFacts(db, log!, prior),
    computedAt: new Date(),
    model: WEAR_MODEL,
    termModel: WEAR_MODEL,
  }
  await db.insert(forecasts).values(values).onConflictDoUpdate({ target: forecasts.nozzleId, set: values })
  await tellSisters(db, material, nozzleId, own, term)
  return { log: log!, forecast: made, sisters, prior }
}

/**
 * Nozzles that turned out to be of another material: what they told goes out of the sum of those they were taken for,
 * and they are worked out anew among their own.
 */
export async function leaveSisters(
  db: Connection,
  nozzleIds: readonly number[],
  from: NozzleMaterial,
  to: unknown,
): Promise<void> {
  if (to === from) return
  await oneAtATime(db)
  for (const id of nozzleIds) await tellSisters(db, from, id, await termOf(db, id), null)
  await db.execute(sql`update forecasts set sister_term = null, term_model = 0, stale = true, moved = null
    where ${idIn('nozzle_id', nozzleIds)}`)
}
/** The same of every nozzle of a type. */
export async function leaveSistersOfType(
  db: Connection,
  typeId: number,
  from: NozzleMaterial,
  to: unknown,
): Promise<void> {
  const rows = await db.execute<{ id: number }>(sql`select id from nozzles where type_id = ${typeId} order by id`)
  await leaveSisters(
    db,
    rows.map(r => r.id),
    from,
    to,
  )
}

/**
 * A nozzle's forecast as it is now, and what it is made of. What another model, or sisters that have told something
 * since, left behind is not taken: it is worked out anew, and stored by the background job.
 */
export async function forecastNow(
  db: Connection,
  nozzleId: number,
): Promise<Refreshed & { input: NozzleInput & { acceptedRisk: number }; isStale: boolean }> {
  const [log] = await nozzleLogs(db, [nozzleId])
  const [stored] = await db.select().from(forecasts).where(eq(forecasts.nozzleId, nozzleId))
  const { material, bore, tip, rules } = wearHistoryOf(log!)
  const fresh = stored && !stored.stale ? stored.detail : null
  const { prior, sisters } = fresh ?? (await sistersPrior(db, material, nozzleId))
  const [risk] = await db.execute<{ accepted_risk: number }>(sql`select accepted_risk from settings`)
  const { law, wearKg } = log!
  const input = { material, law, bore, tip, rules, wearKg, prior, acceptedRisk: risk!.accepted_risk }
  return {
    log: log!,
    input,
    forecast: fresh?.forecast ?? (await heavy('forecast', input)),
    sisters,
    prior,
    isStale: fresh === null && (stored === undefined || stored.moved === null || stored.moved > WORTH_SAYING),
  }
}

/** The middle and the 80 % range of a spread. */
export const range80Of = ({ median, low80, high80 }: Range80): Range80 => ({ median, low80, high80 })
/** What is left in kg of wear mass, as kg of fibre of a filament that abrades so much; null where there is no end. */
export function fibreLeft(leftKg: Range80, abrasivity: number): Range80 | null {
  if (!Number.isFinite(leftKg.median)) return null
  const fibre = (kg: number) => finite(fillerKgFor(kg, abrasivity))
  return { median: fibre(leftKg.median), low80: fibre(leftKg.low80), high80: fibre(leftKg.high80) }
}
const finite = (v: number) => Math.min(v, 1e9)

/** Marks what another model worked out; screens say so until it is worked out again. Answers how many. */
export async function markOtherModels(db: Connection): Promise<number> {
  const rows = await db.execute(
    sql`update forecasts set stale = true, moved = null where (not stale or moved is not null)
      and (model <> ${WEAR_MODEL} or term_model <> ${WEAR_MODEL}) returning nozzle_id`,
  )
  return rows.length
}

/** Marks the nozzles that were gauged by a method of which a study has said something else. Answers how many. */
export async function markMethod(
  db: Connection,
  { method, setupId }: { method: StudyMethod; setupId: number | null },
): Promise<number> {
  const by = method === 'pins' ? sql`(g.go_mm is not null or g.no_go_mm is not null)` : sql`g.setup_id = ${setupId}`
  const rows = await db.execute(sql`
    update forecasts set stale = true, moved = null
    where nozzle_id in (select g.nozzle_id from standing_gauges g where ${by}) returning nozzle_id`)
  return rows.length
}

/**
 * The background job: works out stale forecasts, each in its own short transaction; several processes may share the
 * work.
 */
export async function refreshStale(db: Database, most = 50): Promise<number> {
  let done = 0
  const until = async (one: (tx: Connection) => Promise<boolean>) => {
    while (done < most && (await db.transaction(one))) done++
  }
  await until(async tx => {
    await oneAtATime(tx)
    const [row] = await tx.execute<{ nozzle_id: number }>(
      sql`select f.nozzle_id from forecasts f ${STANDS} where f.term_model <> ${WEAR_MODEL} ${PRESSING_FIRST}`,
    )
    if (!row) return false
    const [log] = await nozzleLogs(tx, [row.nozzle_id])
    const { material, bore } = wearHistoryOf(log!)
    const term = await heavy('term', { bore, material })
    await tx
      .update(forecasts)
      .set({ sisterTerm: term ? Array.from(term) : null, termModel: WEAR_MODEL, stale: true, moved: null })
      .where(eq(forecasts.nozzleId, row.nozzle_id))
    await tellSisters(tx, material, row.nozzle_id, null, term)
    return true
  })
  await until(async tx => {
    await oneAtATime(tx)
    const [row] = await tx.execute<{ nozzle_id: number }>(
      sql`select f.nozzle_id from forecasts f ${STANDS} where f.stale ${PRESSING_FIRST}`,
    )
    if (!row) return false
    await refreshForecast(tx, row.nozzle_id)
    return true
  })
  return done
}

/** Nozzles on printers first, then those likely to be past their limit; retired ones last. */
const STANDS = sql`join nozzle_stands s on s.nozzle_id = f.nozzle_id`
const PRESSING_FIRST = sql`order by (s.kind = 'fit') is true desc, (s.kind = 'retire') is true, f.past_chance desc,
  f.nozzle_id limit 1`

/** Whether a nozzle has none: in a database that was read back while the shop runs all of them. */
export async function isAnyMissing(db: Connection): Promise<boolean> {
  const [row] = await db.execute<{ is: boolean }>(sql`
    select exists (select from nozzles n where not exists (select from forecasts f where f.nozzle_id = n.id)) "is"`)
  return row!.is
}

/** Every nozzle that has none yet (a database from before, or one where they were thrown away). */
export async function refreshMissing(db: Database): Promise<number> {
  await db.transaction(async tx => {
    await oneAtATime(tx)
    await mendSums(tx)
  })
  const rows = await db.execute<{ id: number }>(
    sql`select n.id from nozzles n left join forecasts f on f.nozzle_id = n.id where f.nozzle_id is null order by n.id`,
  )
  for (const r of rows) await db.transaction(tx => refreshForecast(tx, r.id))
  return rows.length
}
