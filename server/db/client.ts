import { makePgArray } from 'drizzle-orm/pg-core'
import { drizzle, type PostgresJsDatabase } from 'drizzle-orm/postgres-js'
import postgres from 'postgres'
import { parse } from 'postgres-array'
import { endWithConnection, type ConnectionId } from './lost'
import * as schema from './schema'

export type Database = PostgresJsDatabase<typeof schema>
/** A database or a transaction on it: what the records take. */
export type Connection = Database | Parameters<Parameters<Database['transaction']>[0]>[0]

/** An array type by its number in the catalogue of types, which is the same in every database. */
const arrays = <T>(oid: number, itemOf: (text: string) => T) => ({
  to: oid,
  from: [oid],
  parse: (text: string) => parse(text, itemOf),
  serialize: (value: unknown) => (Array.isArray(value) ? makePgArray(value) : value),
})

/** How every connection is made. */
export const options = {
  onnotice: () => {},
  // else a connection asks for them before its first question, and one that dies over that is an error nobody can catch
  fetch_types: false,
  types: {
    texts: arrays(1009, String),
    integers: arrays(1007, Number),
    doubles: arrays(1022, Number),
    // as the driver gives one of them alone
    bigints: arrays(1016, String),
  },
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

const SEVERAL = /;\s*\S/
/** A question with more has a list in it. */
const MOST_PARAMETERS = 6
/** A pooler in between that shares connections among transactions does not know what was prepared on which. */
const prepares = () => process.env.DATABASE_DIRECT_URL === undefined

/** The long questions of the screens are planned once for each connection; lists of ids make texts without end. */
function preparing<S extends Pick<postgres.Sql, 'unsafe'>>(client: S): S {
  const { unsafe } = client
  client.unsafe = (query, parameters, how) => {
    // several statements in one text cannot be prepared: they are sent as they are
    if (parameters === undefined || (parameters.length === 0 && SEVERAL.test(query))) return unsafe(query)
    // without parameters it would go as such a text, and be planned each time
    const prepared = { simple: false, prepare: parameters.length <= MOST_PARAMETERS }
    return unsafe(query, parameters, { ...how, ...prepared })
  }
  return client
}

export function connect(url: string, { max = 10 }: { max?: number } = {}): { client: postgres.Sql; db: Database } {
  // what is idle for a while is closed: several processes share what the database allows
  const closings = new Map<ConnectionId, number>()
  const onclose = (id: ConnectionId) => void closings.set(id, (closings.get(id) ?? 0) + 1)
  const client = postgres(url, { ...options, max, idle_timeout: 30, onclose })
  endWithConnection(client, closings, prepares() ? preparing : sql => sql)
  if (prepares()) preparing(client)
  return { client, db: drizzle(client, { schema, casing: 'snake_case' }) }
}
