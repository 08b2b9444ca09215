/** The lines of the shop's names and numbers that news may have changed, read once for every open screen. */
import { sql } from 'drizzle-orm'
import type { ShopNews } from '#shared/answers/news'
import type { ofShop } from '#shared/news'
import type { Connection } from '../../db/client'
import { idIn } from '../../db/ids'
import { listNozzles } from '../nozzles/nozzles'
import { listPrinters } from '../printers/printers'
import { listSpools } from '../spools/spools'
import { studyTurn } from '../studies/studies'

export async function shopNewsOf(db: Connection, of: ReturnType<typeof ofShop>): Promise<ShopNews> {
  if (of.whole) return { whole: true, nozzles: [], spools: [], printers: null, counts: null }
  const beside =
    of.jobsOf.length === 0
      ? []
      : await db.execute<{ id: number }>(sql`
          select s.nozzle_id id from nozzle_stands s join heads h on h.id = s.head_id
          where s.kind = 'fit' and ${idIn('h.printer_id', of.jobsOf)}`)
  const nozzleIds = [...new Set([...of.nozzles, ...beside.map(r => r.id)])]
  const [nozzles, spools, printers, counts] = await Promise.all([
    nozzleIds.length === 0 ? [] : listNozzles(db, { ids: nozzleIds }),
    of.spools.length === 0 ? [] : listSpools(db, of.spools),
    of.printers ? listPrinters(db) : null,
    of.counts ? studyTurn(db).then(turn => ({ studyTurn: turn })) : null,
  ])
  return { whole: false, nozzles, spools, printers: printers && printers.filter(p => !p.outOfUse), counts }
}
