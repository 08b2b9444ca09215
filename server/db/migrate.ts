/**
 * Brings a database to the newest schema: every SQL file not applied yet, each in a transaction, under an advisory lock
 * so that several processes may start at once. What every log has in common is seen to after them.
 */
import postgres from 'postgres'
import { keepLogs } from './logs'
import { keepNews } from './news'

export interface Migration {
  name: string
  sql: string
}
const LOCK = 720_416

export async function migrate(client: postgres.Sql, migrations: Migration[]): Promise<string[]> {
  // of its own and not reserved: a reserved one never comes where a connection asks for no types first (postgres 3.4.9)
  const connection = postgres({ ...client.options, max: 1 } as unknown as postgres.Options<never>)
  const applied: string[] = []
  try {
    await connection`select pg_advisory_lock(${LOCK})`
    await connection`create table if not exists migrations (
      name text primary key, applied_at timestamptz not null default now())`
    const known = new Set((await connection<{ name: string }[]>`select name from migrations`).map(r => r.name))
    for (const m of [...migrations].sort((a, b) => a.name.localeCompare(b.name))) {
      if (known.has(m.name)) continue
      await connection.unsafe('begin')
      try {
        await connection.unsafe(m.sql)
        await connection`insert into migrations (name) values (${m.name})`
        await connection.unsafe('commit')
      } catch (error) {
        await connection.unsafe('rollback')
        throw new Error(`migration ${m.name}: ${error instanceof Error ? error.message : String(error)}`, {
          cause: error,
        })
      }
      applied.push(m.name)
    }
    await keepLogs(connection)
    await keepNews(connection)
    return applied
  } finally {
    await connection`select pg_advisory_unlock(${LOCK})`.catch(() => {})
    await connection.end({ timeout: 1 }).catch(() => {})
  }
}
