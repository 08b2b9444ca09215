/**
 * A transaction whose connection is gone. The driver (postgres 3.4.9) writes its next statement, and the rollback, to
 * the closed connection all the same: an error that nobody can catch, after which this connection never opens again and
 * whoever is given it waits for five seconds in vain. Here such a statement is refused instead.
 */
import type postgres from 'postgres'

/** What the driver gives to the statement that begins a transaction; not among its types. */
interface DriverConnection {
  id: string
  execute: (query: { reject: (error: Error) => void }) => unknown
  connect: (query: unknown) => unknown
}
type OnExecute = (connection: DriverConnection) => unknown
type Unsafe = (query: string, parameters?: unknown[], how?: { onexecute?: OnExecute }) => unknown

const gone = () => Object.assign(new Error('CONNECTION_CLOSED: its transaction is over'), { code: 'CONNECTION_CLOSED' })

/** Lets no statement onto a closed connection. `closed` has the ids of those that closed, as they close (`onclose`). */
export function refuseOnClosed(client: postgres.Sql, closed: Set<string | number>): void {
  const known = new WeakSet<DriverConnection>()
  const watch = (c: DriverConnection) => {
    closed.delete(c.id) // it has just been used
    if (known.has(c)) return
    known.add(c)
    const { execute, connect } = c
    c.execute = query => {
      if (!closed.has(c.id)) return execute(query)
      query.reject(gone())
      return true
    }
    c.connect = query => {
      closed.delete(c.id)
      return connect(query)
    }
  }
  const unsafe = client.unsafe.bind(client) as unknown as Unsafe
  const watching: Unsafe = (query, parameters, how) => {
    const began = how?.onexecute
    if (began === undefined) return unsafe(query, parameters, how)
    const onexecute: OnExecute = c => {
      watch(c)
      return began(c)
    }
    return unsafe(query, parameters, { ...how, onexecute })
  }
  client.unsafe = watching as typeof client.unsafe
}
