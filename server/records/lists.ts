/** Lists for Stores, Run and the strip. */
import { sql } from 'drizzle-orm'
import type { Connection } from '../db/client'
import { listMaterials } from './materials'
import { listNozzles } from './nozzles'
import { listSpools } from './spools'
import type { ZoneLimit } from './ceilings'
import { listNozzleTypes, listPeople, shopSettings } from './stores'

export interface PrinterLine {
  id: number
  name: string
  kind: string
  note: string
  version: number
  heads: { id: number; name: string; nozzleId: number | null; nozzle: string | null }[]
  limits: ZoneLimit[]
  /** Spool and material of the latest run, offered again. */
  lastSpoolId: number | null
}

export async function listPrinters(db: Connection): Promise<PrinterLine[]> {
  return await db.execute<PrinterLine & Record<string, unknown>>(sql`
    select p.id, p.name, p.kind, p.note, p.version,
      (select json_agg(json_build_object('id', h.id, 'name', h.name, 'nozzleId', n.id, 'nozzle', n.tag)
      order by h.position, h.id) from heads h
        left join lateral (select kind, nozzle_id from standing_fittings e where e.head_id = h.id
        order by occurred_at desc, id desc limit 1) e on true
        left join nozzles n on n.id = e.nozzle_id and e.kind = 'fit' where h.printer_id = p.id) heads,
      coalesce((select c.limits from stack_ceilings c where c.printer_id = p.id), '[]') limits,
      (select t.spool_id from standing_runs r join run_tools t on t.run_id = r.id where r.printer_id = p.id
      order by r.ended_at desc, t.tool limit 1) "lastSpoolId"
    from printers p order by p.id`)
}

/** Everything the strip and the forms need to know names and tags. */
export async function shop(db: Connection) {
  const [printers, nozzles, spools, materials, types, people, settings] = await Promise.all([
    listPrinters(db),
    listNozzles(db),
    listSpools(db),
    listMaterials(db),
    listNozzleTypes(db),
    listPeople(db),
    shopSettings(db),
  ])
  return { printers, nozzles, spools, materials, types, people, settings }
}
export type Shop = Awaited<ReturnType<typeof shop>>

export interface RunLine {
  id: number
  name: string
  printer: string
  endedAt: string
  hours: number | null
  outcome: 'finished' | 'failed'
  symptoms: string[]
  enteredAs: string
  person: string
  note: string
  stoppedKind: string | null
  stoppedValue: number | null
  tools: {
    tool: number
    nozzle: string
    spool: string | null
    material: string
    extrudedG: number
    fibreG: number
    setC: number | null
  }[]
  struck: { reason: string; person: string } | null
}

/** Runs, newest first; `before` is the cursor of the page before (its last run's id and time). */
export async function listRuns(
  db: Connection,
  limit: number,
  before: { at: string; id: number } | null,
): Promise<{ runs: RunLine[]; next: string | null }> {
  const rows = await db.execute<RunLine & Record<string, unknown>>(sql`
    select r.id::int id, r.name, p.name printer, r.ended_at "endedAt", r.hours, r.outcome, r.symptoms,
    r.entered_as "enteredAs", w.name person, r.note,
      r.stopped_kind "stoppedKind", r.stopped_value "stoppedValue",
      (select json_agg(json_build_object('tool', t.tool, 'nozzle', n.tag, 'spool', s.tag, 'material',
      t.material_name, 'extrudedG', t.extruded_g, 'fibreG', t.fibre_g, 'setC', t.set_c) order by t.tool)
        from run_tools t join nozzles n on n.id = t.nozzle_id left join spools s on s.id = t.spool_id
        where t.run_id = r.id) tools,
      (select json_build_object('reason', k.reason, 'person', kw.name) from strikes k
      join people kw on kw.id = k.person_id where k.target = 'run' and k.target_id = r.id) struck
    from runs r join printers p on p.id = r.printer_id join people w on w.id = r.person_id
    where ${before === null ? sql`true` : sql`(r.ended_at, r.id) < (${before.at}::timestamptz, ${before.id})`}
    order by r.ended_at desc, r.id desc limit ${limit + 1}`)
  const runs = rows.slice(0, limit).map(r => ({ ...r, endedAt: new Date(r.endedAt).toISOString() }))
  const last = runs[runs.length - 1]
  return { runs, next: rows.length > limit && last ? `${last.endedAt}~${last.id}` : null }
}
