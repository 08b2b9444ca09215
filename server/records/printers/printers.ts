/** Printers by name, heads and limits, as forms and the strip offer them. */
import type { PrinterLine } from '#shared/answers/printers'
import { sql } from 'drizzle-orm'
import type { Connection } from '../../db/client'
import { LAST_ON_HEAD } from './fittings'

export async function listPrinters(db: Connection): Promise<PrinterLine[]> {
  return await db.execute<PrinterLine & Record<string, unknown>>(sql`
    select p.id, p.name, p.kind, p.note, p.restrictions, p.out_of_use "outOfUse", p.version,
      (select json_agg(json_build_object('id', h.id, 'name', h.name, 'nozzleId', n.id, 'nozzle', n.tag,
      'hotendId', t.id, 'hotend', t.tag)
      order by h.position, h.id) from heads h
        left join lateral ${LAST_ON_HEAD} e on e.kind = 'fit' left join nozzles n on n.id = e.nozzle_id
        left join hotend_places w on w.head_id = h.id and w.kind = 'fit' left join hotends t on t.id = w.hotend_id
        where h.printer_id = p.id) heads,
      coalesce((select c.limits from stack_ceilings c where c.printer_id = p.id), '[]') limits,
      (select t.spool_id from standing_runs r join run_tools t on t.run_id = r.id where r.printer_id = p.id
      order by r.ended_at desc, t.tool limit 1) "lastSpoolId"
    from printers p order by p.id`)
}

/** A printer's name; null for one that is not known. */
export async function nameOfPrinter(db: Connection, id: number): Promise<string | null> {
  const [row] = await db.execute<{ name: string }>(sql`select name from printers where id = ${id}`)
  return row?.name ?? null
}

/** What a printer is not used for. */
export async function restrictionsOf(db: Connection, id: number): Promise<string[]> {
  const [row] = await db.execute<{ restrictions: string[] }>(sql`select restrictions from printers where id = ${id}`)
  return row?.restrictions ?? []
}
