import { drizzle, type PostgresJsDatabase } from 'drizzle-orm/postgres-js'
import postgres from 'postgres'
import * as schema from './schema'

export type Database = PostgresJsDatabase<typeof schema>
/** A database or a transaction on it: what the records take. */
export type Connection = Database | Parameters<Parameters<Database['transaction']>[0]>[0]

/** How every connection is made. */
export const options = {
  onnotice: () => {},
  connect_timeout: 5,
  // a database that comes back is found at once, and not after a wait that doubles
  backoff: (tries: number) => Math.min(0.05 * 2 ** tries, 0.5) * (0.75 + Math.random() / 2),
  connection: {
    // short questions with many joins: compiling one takes longer than answering it
    jit: 'off',
    // a peer that is gone without a word is noticed within seconds
    tcp_keepalives_idle: 3,
    tcp_keepalives_interval: 1,
    tcp_keepalives_count: 3,
  },
} satisfies postgres.Options<Record<string, postgres.PostgresType>>

export function connect(url: string, { max = 10 }: { max?: number } = {}): { client: postgres.Sql; db: Database } {
  const client = postgres(url, { ...options, max })
  return { client, db: drizzle(client, { schema, casing: 'snake_case' }) }
}
