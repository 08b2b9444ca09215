/** What keeps printers from being ready, as the rule in `core/schedule` reads it. */
import { sql, type SQL } from 'drizzle-orm'
import { NOTHING_STANDS, type Standing } from '#core/schedule'
import type { Connection } from '../../db/client'
import { idIn } from '../../db/ids'

interface Under extends Record<string, unknown> {
  id: number
  printerId: number
  title: string
  done: number
  of: number
  by: string
}

const underWayQuery = (printerIds?: readonly number[]) => sql`
  select p.id::int, p.printer_id "printerId", p.title, jsonb_array_length(p.steps) "of",
    (select count(distinct t.step)::int from standing_procedure_ticks t where t.procedure_id = p.id) done,
    coalesce((select u.name from standing_procedure_ticks t join people u on u.id = t.person_id
      where t.procedure_id = p.id order by t.id desc limit 1), b.name) "by"
  from standing_procedures p join people b on b.id = p.person_id
  where p.outcome is null and ${idIn('p.printer_id', printerIds)} order by p.id desc`

/** Procedures under way, of some printers or of all, the latest first. */
export async function underWay(db: Connection, printerIds?: readonly number[]): Promise<Under[]> {
  return await db.execute<Under>(underWayQuery(printerIds))
}

type Against = Record<string, unknown> & {
  procedures: Under[]
  tags: { id: number; printerId: number; why: string; by: string }[]
  notes: { id: number; printerId: number; says: string; by: string }[]
  toCommission: { id: number }[]
}
/** Short lists, asked for on nearly every screen: one question for all. */
const asList = (query: SQL) => sql`(select coalesce(json_agg(x), '[]') from (${query}) x)`

/** What stands against each printer's being ready; printers that are not in it have nothing against them. */
export async function standings(db: Connection, printerIds?: readonly number[]): Promise<Map<number, Standing>> {
  const [against] = await db.execute<Against>(sql`select
    ${asList(underWayQuery(printerIds))} procedures,
    ${asList(sql`
      select t.id::int, t.printer_id "printerId", t.why, u.name "by" from standing_service_tags t
      join people u on u.id = t.person_id where t.outcome is null and ${idIn('t.printer_id', printerIds)}
      order by t.id desc`)} tags,
    ${asList(sql`
      select n.id::int, n.printer_id "printerId", n.says, u.name "by" from standing_shift_notes n
      join people u on u.id = n.person_id where n.outcome is null and ${idIn('n.printer_id', printerIds)}
      order by n.id desc`)} notes,
    ${asList(sql`
      select p.id from printers p where p.to_commission and ${idIn('p.id', printerIds)}
        and not exists (select from standing_procedures c where c.printer_id = p.id and c.kind = 'commission'
          and c.outcome = 'done')`)} "toCommission"`)
  const { procedures, tags, notes, toCommission } = against!
  const out = new Map<number, Standing>()
  const put = (id: number, more: (s: Standing) => Partial<Standing>) => {
    const s = out.get(id) ?? NOTHING_STANDS
    out.set(id, { ...s, ...more(s) })
  }
  for (const { printerId, ...p } of procedures) put(printerId, s => ({ procedures: [...s.procedures, p] }))
  for (const { printerId, ...t } of tags) put(printerId, s => ({ tags: [...s.tags, t] }))
  for (const { printerId, ...n } of notes) put(printerId, s => ({ notes: [...s.notes, n] }))
  for (const { id } of toCommission) put(id, () => ({ toCommission: true }))
  return out
}
