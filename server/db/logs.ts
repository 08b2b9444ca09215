/**
 * What every log has in the database: triggers that refuse change, a view without what is struck out, and checks of the
 * kinds there are. Made from the registry after the migrations; what is there already is left as it is.
 */
import type postgres from 'postgres'
import { ENDING_TARGETS, LOG_TABLES, LOGS, logOf, STRIKE_TARGETS, type LogKind } from '#shared/logs'

type Connection = Pick<postgres.Sql, 'unsafe'>

export async function keepLogs(connection: Connection): Promise<void> {
  const names = async (query: string) => new Set((await connection.unsafe<{ name: string }[]>(query)).map(r => r.name))
  // a database on its way up from an older version has not all of them yet
  const there = await names(`select relname name from pg_class where relkind = 'r'`)
  const guarded = await names(`select relname name from pg_trigger t join pg_class c on c.oid = t.tgrelid
    where tgname = 'no_change'`)
  for (const table of LOG_TABLES.filter(t => there.has(t) && !guarded.has(t)))
    await connection.unsafe(`
      create trigger no_change before update or delete on ${table} for each row execute function refuse_change();
      create trigger no_truncate before truncate on ${table} for each statement execute function refuse_change()`)
  const views = await names(`select viewname name from pg_views where schemaname = 'public'`)
  for (const kind of STRIKE_TARGETS)
    if (there.has(LOGS[kind].table) && !views.has(`standing_${LOGS[kind].table}`))
      await connection.unsafe(standing(kind))
  await oneOf(connection, 'strikes', 'target', STRIKE_TARGETS)
  await oneOf(connection, 'endings', 'target', ENDING_TARGETS)
  for (const kind of Object.keys(LOGS) as LogKind[]) {
    const { table, kinds } = logOf(kind)
    if (kinds && there.has(table)) await oneOf(connection, table, 'kind', kinds)
  }
}

/** The view of a kind's entries without those that are struck out, with how each ended. */
function standing(kind: LogKind): string {
  const { table, ending } = logOf(kind)
  const ended = (ending ?? []).map(c => `, n.${c}`).join('')
  const join = ending ? `left join endings n on n.target = '${kind}' and n.target_id = e.id` : ''
  return `create view standing_${table} as select e.*${ended} from ${table} e ${join}
    where not exists (select from strikes s where s.target = '${kind}' and s.target_id = e.id)`
}

/** The check that a column holds one of these words; made anew only when there is another word. */
async function oneOf(connection: Connection, table: string, column: string, words: readonly string[]): Promise<void> {
  const name = `${table}_${column}_check`
  const [check] = await connection.unsafe<{ text: string }[]>(
    `select pg_get_constraintdef(oid) text from pg_constraint where conname = $1 and conrelid = $2::regclass`,
    [name, table],
  )
  const known = [...(check?.text ?? '').matchAll(/'([^']*)'/g)].map(m => m[1]!)
  if (known.length === words.length && words.every(w => known.includes(w))) return
  const list = words.map(w => `'${w}'`).join(', ')
  await connection.unsafe(`alter table ${table} drop constraint if exists ${name};
    alter table ${table} add constraint ${name} check (${column} in (${list}))`)
}
