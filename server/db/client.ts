import { drizzle, type PostgresJsDatabase } from 'drizzle-orm/postgres-js'
import postgres from 'postgres'
import * as schema from './schema'

export type Database = PostgresJsDatabase<typeof schema>
/** A database or a transaction on it: what the records take. */
export type Connection = Database | Parameters<Parameters<Database['transaction']>[0]>[0]

export function connect(url: string, options: { max?: number } = {}): { client: postgres.Sql; db: Database } {
  const client = postgres(url, {
    max: options.max ?? 10,
    onnotice: () => {},
    connect_timeout: 5,
    // short questions with many joins: compiling one takes longer than answering it
    connection: { jit: 'off' },
  })
  return { client, db: drizzle(client, { schema, casing: 'snake_case' }) }
}
