/** The nozzles that could go on a head, as a swap needs to know them. */
import { sql, type SQL } from 'drizzle-orm'
import type { FittedNozzle } from '#core/limits'
import { LENGTH_MM, type Candidate, type SwapNozzle } from '#core/procedures'
import { wornOut } from '#core/schedule'
import type { NozzleMaterial } from '#core/wear'
import { mmNumber } from '#core/words'
import type { Connection } from '../../db/client'
import { boreLimitMm } from '../nozzles/history'

export interface NozzleRow extends Record<string, unknown> {
  id: number
  tag: string
  material: NozzleMaterial
  boreMm: number
  lengthMm: number
  inletMm: number
  insertMm: number | null
  torqueNm: number | null
  boreGrowthLimit: number | null
  tipMm: number | null
  shape: string[] | null
  pastChance: number
  leftKg: number | null
  leftLowKg: number | null
  abrasivity: number | null
}

const rowsOf = (db: Connection, headId: number, which: SQL) =>
  db.execute<NozzleRow & { here: boolean }>(sql`
    select n.id, n.tag, y.material, y.nominal_bore_mm "boreMm", y.length_mm "lengthMm", y.inlet_mm "inletMm",
      y.insert_mm "insertMm", y.torque_nm "torqueNm", y.bore_growth_limit "boreGrowthLimit",
      coalesce(e.kind = 'fit' and e.head_id = ${headId}, false) here,
      (select g.tip_mm from standing_gauges g where g.nozzle_id = n.id and g.tip_mm is not null
        order by g.occurred_at desc, g.id desc limit 1) "tipMm",
      (select g.shape from standing_gauges g where g.nozzle_id = n.id
        order by g.occurred_at desc, g.id desc limit 1) shape,
      coalesce(f.past_chance, 0) "pastChance", f.left_kg "leftKg", f.left_low_kg "leftLowKg",
      e.abrasivity
    from nozzle_stands e join nozzles n on n.id = e.nozzle_id join nozzle_types y on y.id = n.type_id
    left join forecasts f on f.nozzle_id = n.id
    where ${which} order by n.id`)
/** The nozzle on a head, and those that could be: not fitted, retired, in a hotend or promised elsewhere. */
export const nozzleRows = (db: Connection, headId: number) =>
  rowsOf(
    db,
    headId,
    sql`e.hotend_id is null and (e.kind is distinct from 'fit' or e.head_id = ${headId})
      and e.kind is distinct from 'retire'
      and not exists (select from standing_procedures p where p.outcome is null and p.head_id <> ${headId}
        and p.kind = 'swap' and (p.facts->'fresh'->>'id')::int = n.id)`,
  )
/** One nozzle, wherever it is, as if it were to go on this head. */
export const nozzleRow = async (db: Connection, headId: number, nozzleId: number): Promise<NozzleRow> =>
  (await rowsOf(db, headId, sql`n.id = ${nozzleId}`))[0]!

/** A gauge may have been given another length than the whole one; what is no length of a nozzle counts for nothing. */
const gaugedMm = ({ tipMm }: NozzleRow) =>
  tipMm !== null && tipMm >= LENGTH_MM[0] && tipMm <= LENGTH_MM[1] ? tipMm : null
export const swapNozzle = (n: NozzleRow): SwapNozzle => ({
  id: n.id,
  tag: n.tag,
  words: `${n.material} ${mmNumber(n.boreMm)}`,
  lengthMm: gaugedMm(n) ?? n.lengthMm,
  lengthBy: gaugedMm(n) === null ? 'type' : 'gauge',
  insert: n.insertMm !== null,
  plated: n.material === 'plated copper',
  brittle: n.insertMm === null && (n.material === 'tungsten carbide' || n.material === 'polycrystalline diamond'),
})
export const fitted = (n: NozzleRow, headId: number): FittedNozzle => ({
  id: n.id,
  tag: n.tag,
  material: n.material,
  boreMm: n.boreMm,
  insert: n.insertMm !== null,
  lengthMm: n.lengthMm,
  headId,
  price: 0,
})

export function candidate(n: NozzleRow, headId: number): Candidate {
  const grams = (kg: number) => (kg / n.abrasivity!) * 1000
  const { boreMm: nominalBoreMm, boreGrowthLimit, pastChance } = n
  const limitMm = boreLimitMm({ nominalBoreMm, boreGrowthLimit })
  return {
    nozzle: fitted(n, headId),
    left: n.abrasivity === null || n.leftKg === null ? null : { low80G: grams(n.leftLowKg!), medianG: grams(n.leftKg) },
    pastChance,
    worn: wornOut({ limitMm, pastChance, shape: n.shape ?? [] }),
  }
}

/** So many nozzles of the shelf are asked everything; a shop with thousands has many alike. */
const MOST_ASKED = 40
/** Those worth asking first: whole, of the bore that the files were made for, with something left. */
export function likeliest(shelf: readonly NozzleRow[], headId: number, boreMm: number | null): NozzleRow[] {
  const rank = (n: NozzleRow) => {
    const { worn, left } = candidate(n, headId)
    return Number(worn === null) * 4 + Number(n.boreMm === boreMm) * 2 + Number(left === null || left.low80G > 50)
  }
  return shelf
    .map(n => ({ n, rank: rank(n) }))
    .sort((a, b) => b.rank - a.rank)
    .slice(0, MOST_ASKED)
    .map(x => x.n)
}
