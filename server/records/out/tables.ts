/** The tables of the database as an archive has them: what is a record goes in, what can be made from it does not. */
import { sql } from 'drizzle-orm'
import type { Connection } from '../../db/client'

/** Worked out from the rest, and made anew where an archive is read. */
const DERIVED = [
  'forecasts',
  'sister_sums',
  'spool_versions',
  'spool_stands',
  'wound_factors',
  'nozzle_stands',
  'part_stands',
  'hotend_stands',
  'material_days',
  'printer_days',
  'stock_stands',
  'stack_ceilings',
]
/** On its way in, or of this installation alone. */
const PASSING = ['migrations', 'answers', 'chores', 'intake_stages', 'intake_pieces']

export interface Table {
  name: string
  columns: { name: string; type: string; nullable: boolean }[]
  /** Columns that put its rows in their order. */
  key: string[]
  /** Other tables that its rows name. */
  names: string[]
}
/** The bytes of pictures are files of their own. */
export const PICTURES = { table: 'blobs', bytes: 'bytes' } as const

/** Tables of records, those that others name first. */
export async function archivedTables(db: Connection): Promise<Table[]> {
  const rows = await db.execute<Table & Record<string, unknown>>(sql`
    select c.relname "name",
      (select json_agg(json_build_object('name', a.attname, 'type', format_type(a.atttypid, a.atttypmod),
        'nullable', not a.attnotnull) order by a.attnum)
        from pg_attribute a where a.attrelid = c.oid and a.attnum > 0 and not a.attisdropped
          and a.attgenerated = '') "columns",
      coalesce((select json_agg(a.attname order by a.attnum) from pg_index i join pg_attribute a on a.attrelid = c.oid
        and a.attnum = any (i.indkey) where i.indrelid = c.oid and i.indisprimary), '[]') "key",
      coalesce((select json_agg(distinct f.relname) from pg_constraint k join pg_class f on f.oid = k.confrelid
        where k.conrelid = c.oid and k.contype = 'f' and f.oid <> c.oid), '[]') "names"
    from pg_class c where c.relkind = 'r' and c.relnamespace = 'public'::regnamespace
      and c.relname not in (select jsonb_array_elements_text(${JSON.stringify([...DERIVED, ...PASSING])}::jsonb))
    order by c.relname`)
  return inOrder(rows)
}

function inOrder(tables: readonly Table[]): Table[] {
  const all = new Map(tables.map(t => [t.name, t]))
  const out = new Set<Table>()
  const put = (t: Table, above: readonly string[]): void => {
    if (out.has(t) || above.includes(t.name)) return
    for (const name of t.names) {
      const named = all.get(name)
      if (named) put(named, [...above, t.name])
    }
    out.add(t)
  }
  for (const t of tables) put(t, [])
  return [...out]
}
