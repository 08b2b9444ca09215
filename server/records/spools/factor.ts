/**
 * The shop's own wound-spool factor, from the latest dryings that were weighed before and after. It is kept by what it
 * was fitted to, so that it is fitted once and not at each asking.
 */
import { sql } from 'drizzle-orm'
import {
  DRYING_MODEL,
  fitFactor,
  meanWater,
  START_WOUND,
  throughHistory,
  type FittedFactor,
  type Wound,
} from '#core/drying'
import type { ShopAir } from '#shared/answers/spools'
import { USUAL_TARE_G } from '#shared/filament'
import type { Connection } from '../../db/client'
import { idIn } from '../../db/ids'
import { woundFactors } from '../../db/schema'
import { basisOf } from '../entry/answers'
import { shopAir, spoolLogs, uptakeOfSpool } from './log'
import { problemOf, startOf, staysOf } from './moisture'

/** Least uncertainty of a weight difference, g: twice a balance of 1 g resolution, rectangular. */
const WEIGHING_U_G = 0.6

/** The latest weighed dryings are enough to know the factor, and keep the reading quick when there are hundreds. */
const WEIGHINGS = 12

interface Weighed extends Record<string, unknown> {
  id: number
  spoolId: number
  version: number
  beforeG: number
  afterG: number
}
/** Dryings weighed before and after, the latest first, each with the version of its spool's log. */
const weighedDryings = (db: Connection, from: number, count: number) =>
  db.execute<Weighed>(sql`
    select d.id::int, d.spool_id "spoolId", coalesce(v.version, 0)::int "version", d.gross_g "beforeG",
      e.gross_g "afterG"
    from endings e join dryings d on d.id = e.target_id left join spool_versions v on v.spool_id = d.spool_id
    where e.target = 'drying' and e.gross_g is not null and d.gross_g is not null
      and not exists (select from strikes s where s.target = 'drying' and s.target_id = d.id)
    order by e.occurred_at desc, e.id desc offset ${from} limit ${count}`)

/** What every state of a spool rests on beside its own log: the shop's air, and the factor that the logs make. */
export async function airAndFactor(db: Connection): Promise<{ air: ShopAir; wound: FittedFactor }> {
  const air = await shopAir(db)
  // most often the latest few are enough; those of filaments that take no water are passed over
  const first = await weighedDryings(db, 0, 2 * WEIGHINGS)
  const basis = basisOf({ first, air, model: DRYING_MODEL })
  const [kept] = await db.execute<{ fitted: FittedFactor }>(
    sql`select fitted from wound_factors where basis = ${basis}`,
  )
  if (kept) return { air, wound: kept.fitted }
  const wound = fitFactor(await weighingsOf(db, air, first))
  await db.insert(woundFactors).values({ basis, fitted: wound }).onConflictDoNothing()
  return { air, wound }
}

async function weighingsOf(db: Connection, air: ShopAir, first: readonly Weighed[]) {
  const out: Parameters<typeof fitFactor>[0][number][] = []
  let page: readonly Weighed[] = first
  for (let from = page.length; page.length > 0; from += page.length) {
    const logs = await spoolLogs(db, idIn('s.id', [...new Set(page.map(w => w.spoolId))]))
    for (const { id, spoolId, beforeG, afterG } of page) {
      const s = logs.find(x => x.id === spoolId)!
      const f = problemOf(s, air, Date.now()) === null ? uptakeOfSpool(s) : null
      const drying = s.dryings.find(d => d.id === id)
      if (f === null || !drying?.to) continue
      const [begun, ended] = [Date.parse(drying.from), Date.parse(drying.to)]
      const before = staysOf(s, air, begun)
      const stay = staysOf(s, air, ended).filter(x => x.from >= begun)
      const filamentG = beforeG - (s.mass.tareG ?? USUAL_TARE_G)
      const expectedG = (factor: number) => {
        const wound: Wound = { ...START_WOUND, factor }
        const state = throughHistory(startOf(s, f, air, before, begun), f, before, wound)
        return (filamentG / 100) * (meanWater(state.wound) - meanWater(throughHistory(state, f, stay, wound).wound))
      }
      out.push({ lostG: beforeG - afterG, uG: WEIGHING_U_G, expectedG })
      if (out.length === WEIGHINGS) return out
    }
    page = await weighedDryings(db, from, 2 * WEIGHINGS)
  }
  return out
}
