/**
 * What the nozzles of a material tell each other: the sum of all their terms, kept so that one gauge costs one nozzle's
 * work however many sisters there are. Terms add up without rounding (core/wear), so the kept sum is that of all terms
 * afresh. Sisters are worked out anew only when what they are told has moved by more than they could notice.
 */
import { eq, sql } from 'drizzle-orm'
import {
  pooledPrior,
  priorMoved,
  sumTerms,
  WEAR_MODEL,
  withoutTerm,
  withTerm,
  type LogNormalPrior,
  type NozzleMaterial,
  type SisterTerm,
} from '#core/wear'
import type { Connection } from '../../db/client'
import { sisterSums } from '../../db/schema'

/** A prior that has moved by less than this share of its spread leaves the forecasts of sisters as they are. */
const NOTICED = 0.02
/** Below this share of the spread no screen says that a forecast is being worked out anew. */
export const WORTH_SAYING = 0.2

/** Forecast `f` of the nozzle that stands as `s` is out of date in a way that could matter to somebody who reads it. */
export const STALE_SHOWN = sql`(coalesce(f.stale, true) and coalesce(f.moved, 1) > ${sql.raw(String(WORTH_SAYING))}
  and s.kind is distinct from 'retire')`

interface Sum {
  sum: SisterTerm | null
  sisters: number
  told: LogNormalPrior
}

async function sumOf(db: Connection, material: NozzleMaterial): Promise<Sum> {
  const [row] = await db.select().from(sisterSums).where(eq(sisterSums.material, material))
  if (row?.model !== WEAR_MODEL) return { sum: null, sisters: 0, told: pooledPrior(material, null, 0) }
  return { sum: row.sum && Float64Array.from(row.sum), sisters: row.sisters, told: row.told }
}

/**
 * What a nozzle's rate is expected to be from its sisters, and what it told them itself; `nozzleId` null for one that
 * is not bought yet.
 */
export async function sistersPrior(
  db: Connection,
  material: NozzleMaterial,
  nozzleId: number | null,
): Promise<{ prior: LogNormalPrior; sisters: number; own: SisterTerm | null }> {
  const { sum, sisters } = await sumOf(db, material)
  const own = nozzleId === null ? null : await termOf(db, nozzleId)
  if (sum === null || own === null) return { prior: pooledPrior(material, sum, sisters), sisters, own }
  return { prior: pooledPrior(material, withoutTerm(sum, own), sisters - 1), sisters: sisters - 1, own }
}

/** What a nozzle told last, by today's model; null where it told nothing. */
export async function termOf(db: Connection, nozzleId: number): Promise<SisterTerm | null> {
  const [row] = await db.execute<{ sister_term: number[] | null }>(sql`
    select sister_term from forecasts where nozzle_id = ${nozzleId} and term_model = ${WEAR_MODEL}`)
  return row?.sister_term ? Float64Array.from(row.sister_term) : null
}

/**
 * A nozzle tells its sisters something else than before: the sum takes it in, and where that moves what they are told
 * they are marked, each with by how many of its spreads. Under the lock of the forecasts.
 */
export async function tellSisters(
  db: Connection,
  material: NozzleMaterial,
  nozzleId: number,
  before: SisterTerm | null,
  term: SisterTerm | null,
): Promise<void> {
  if (before === term || (before && term && before.every((v, k) => v === term[k]))) return
  const known = await sumOf(db, material)
  let { sum, sisters } = known
  if (before && sum) {
    sum = withoutTerm(sum, before)
    sisters--
  }
  if (term) {
    sum = withTerm(sum, term)
    sisters++
  }
  if (sisters === 0) sum = null
  const now = pooledPrior(material, sum, sisters)
  const moved = priorMoved(known.told, now)
  const told = moved > NOTICED ? now : known.told
  const values = { material, model: WEAR_MODEL, sum: sum && Array.from(sum), sisters, told }
  await db.insert(sisterSums).values(values).onConflictDoUpdate({ target: sisterSums.material, set: values })
  if (moved <= NOTICED) return
  // one that is out of date by itself stays so whatever its sisters say
  await db.execute(sql`
    update forecasts set stale = true, moved = coalesce(moved, 0) + ${moved}
    where nozzle_id <> ${nozzleId} and (not stale or moved is not null) and nozzle_id in (
      select n.id from nozzles n join nozzle_types t on t.id = n.type_id where t.material = ${material})`)
}

/**
 * Sums that are not those of the terms there are (the table was thrown away, or part of it) are made again from them.
 */
export async function mendSums(db: Connection): Promise<void> {
  const counts = await db.execute<{ material: NozzleMaterial; terms: number; summed: number }>(sql`
    select material, coalesce(t.n, 0)::int terms, coalesce(s.sisters, 0)::int summed from sister_sums s
    full join (select y.material, count(*) n from forecasts f join nozzles n on n.id = f.nozzle_id
      join nozzle_types y on y.id = n.type_id where f.sister_term is not null and f.term_model = ${WEAR_MODEL}
      group by y.material) t using (material)`)
  for (const { material } of counts.filter(c => c.terms !== c.summed)) {
    const rows = await db.execute<{ sister_term: number[] }>(sql`
      select f.sister_term from forecasts f join nozzles n on n.id = f.nozzle_id join nozzle_types t on t.id = n.type_id
      where t.material = ${material} and f.sister_term is not null and f.term_model = ${WEAR_MODEL}`)
    const sum = sumTerms(rows.map(r => Float64Array.from(r.sister_term)))
    const told = pooledPrior(material, sum, rows.length)
    const values = { material, model: WEAR_MODEL, sum: sum && Array.from(sum), sisters: rows.length, told }
    await db.insert(sisterSums).values(values).onConflictDoUpdate({ target: sisterSums.material, set: values })
  }
}
