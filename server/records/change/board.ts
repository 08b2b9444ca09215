/** Change at one look: what is under way, what hangs, what was noted, and which nozzles are due. */
import { sql } from 'drizzle-orm'
import { NOTHING_STANDS, wornOut } from '#core/schedule'
import type { Change } from '#shared/answers/change'
import type { Connection } from '../../db/client'
import { boreLimitMm } from '../nozzles/history'
import { LAST_ON_HEAD, PLACE_OF_HEAD } from '../printers/fittings'
import { listProcedures } from './procedures'
import { listNotes, listTags } from './service'
import { standings } from './under-way'

interface HeadRow extends Record<string, unknown> {
  printerId: number
  printer: string
  id: number
  name: string
  place: string
  nozzle: string | null
  hotend: string | null
  pastChance: number
  nominalBoreMm: number | null
  boreGrowthLimit: number | null
  shape: string[] | null
}

const headRows = (db: Connection) =>
  db.execute<HeadRow>(sql`
    select p.id "printerId", p.name printer, h.id, h.name, ${PLACE_OF_HEAD} place, n.tag nozzle, t.tag hotend,
      coalesce(f.past_chance, 0) "pastChance", y.nominal_bore_mm "nominalBoreMm", y.bore_growth_limit "boreGrowthLimit",
      (select g.shape from standing_gauges g where g.nozzle_id = n.id
        order by g.occurred_at desc, g.id desc limit 1) shape
    from heads h join printers p on p.id = h.printer_id and not p.out_of_use
    left join lateral ${LAST_ON_HEAD} e on e.kind = 'fit'
    left join hotend_places l on l.head_id = h.id and l.kind = 'fit' left join hotends t on t.id = l.hotend_id
    left join nozzles n on n.id = e.nozzle_id left join nozzle_types y on y.id = n.type_id
    left join forecasts f on f.nozzle_id = n.id
    order by p.id, h.position, h.id`)

/** Why a head's nozzle is to be changed; the rule that stops it on the Floor. */
function dueOf(r: HeadRow): string | null {
  if (r.hotend === null) return 'No hotend is on it.'
  if (r.nozzle === null) return 'No nozzle is fitted.'
  const { nominalBoreMm, boreGrowthLimit, pastChance, shape } = r
  const limitMm = boreLimitMm({ nominalBoreMm: nominalBoreMm!, boreGrowthLimit })
  return wornOut({ limitMm, pastChance, shape: shape ?? [] })
}

export async function changePage(db: Connection): Promise<Change> {
  const [heads, stand, procedures, tags, notes] = await Promise.all([
    headRows(db),
    standings(db),
    listProcedures(db),
    listTags(db),
    listNotes(db),
  ])
  const printers = new Map<number, Change['printers'][number]>()
  for (const h of heads) {
    const { printerId, printer, id, name, place, nozzle, hotend } = h
    if (!printers.has(printerId))
      printers.set(printerId, {
        id: printerId,
        name: printer,
        standing: stand.get(printerId) ?? NOTHING_STANDS,
        heads: [],
      })
    printers.get(printerId)!.heads.push({ id, name, place, nozzle, hotend, due: dueOf(h) })
  }
  return { printers: [...printers.values()], procedures, tags, notes }
}
