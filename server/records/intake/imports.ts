/** What came in by tables: which entries are of which, so that they can be struck out together. */
import { sql } from 'drizzle-orm'
import type { TableName } from '#core/intake'
import type { IntakeImports } from '#shared/answers/intake'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { insertMany } from '../../db/many'
import { importRows, imports } from '../../db/schema'
import type { Entry } from './line'

export async function keepImport(
  tx: Connection,
  table: TableName,
  name: string,
  entries: readonly Pick<Entry, 'target' | 'id'>[],
  personId: number,
): Promise<void> {
  if (entries.length === 0) return
  const [kept] = await tx
    .insert(imports)
    .values({ kind: table, name: name || 'pasted', lines: entries.length, personId })
    .returning({ id: imports.id })
  const rows = entries.map(e => ({ importId: kept!.id, target: e.target, targetId: e.id }))
  await insertMany(tx, importRows, rows)
}

const MOST_LISTED = 100
export async function listImports(db: Connection): Promise<IntakeImports> {
  const rows = await db.execute<IntakeImports['imports'][number] & Record<string, unknown>>(sql`
    select i.id::int, i.kind, i.name, i.lines entries, ${iso('i.recorded_at')} at, p.name person,
      i.lines - (select count(*)::int from import_rows r join strikes s on s.target = r.target
        and s.target_id = r.target_id where r.import_id = i.id) standing,
      (select json_build_object('reason', s.reason, 'person', w.name) from strikes s join people w on w.id = s.person_id
        where s.target = 'import' and s.target_id = i.id) struck
    from imports i join people p on p.id = i.person_id order by i.id desc limit ${MOST_LISTED}`)
  return { imports: [...rows] }
}
