/**
 * A transaction whose connection is gone ends there. The driver (postgres 3.4.9) tells whoever began it, but lets its
 * work go on: the next statement, or the rollback, is written to the closed connection, an error that nobody can catch
 * and after which this connection never opens again; or, once it is open again, into what another has begun on it.
 */
import type postgres from 'postgres'

export type ConnectionId = string | number
type Work = (sql: postgres.TransactionSql) => unknown

/** What the driver hands to the statement that begins a transaction; not among its types. */
type OnExecute = (connection: { id: ConnectionId }) => unknown
type Unsafe = (query: string, parameters?: unknown[], how?: { onexecute?: OnExecute }) => unknown

const gone = () => Object.assign(new Error('CONNECTION_CLOSED: its transaction is over'), { code: 'CONNECTION_CLOSED' })

/**
 * Ends the work of transactions with their connection. `closings` counts how often each one closed (`onclose`); `made`
 * makes of a transaction what its work is given.
 */
export function endWithConnection(
  client: postgres.Sql,
  closings: ReadonlyMap<ConnectionId, number>,
  made: (sql: postgres.TransactionSql) => postgres.TransactionSql,
): void {
  /** Told the connection of the transaction that is being begun. */
  let beginning: ((id: ConnectionId) => void) | null = null

  const unsafe = client.unsafe.bind(client) as unknown as Unsafe
  const told: Unsafe = (query, parameters, how) => {
    const [tell, began] = [beginning, how?.onexecute]
    if (tell === null || began === undefined) return unsafe(query, parameters, how)
    const onexecute: OnExecute = connection => {
      tell(connection.id)
      return began(connection)
    }
    return unsafe(query, parameters, { ...how, onexecute })
  }
  client.unsafe = told as typeof client.unsafe

  const begin = client.begin.bind(client) as unknown as (how: string, work: Work) => unknown
  const ending = (...args: [Work] | [string, Work]) => {
    const [how, work] = args.length === 1 ? ['', args[0]] : args
    let isLost = () => false
    beginning = id => {
      const before = closings.get(id)
      isLost = () => closings.get(id) !== before
    }
    try {
      return begin(how, sql =>
        unlessLost(
          () => work(made(refusing(sql, () => isLost()))),
          () => isLost(),
        ),
      )
    } finally {
      // the driver has asked for its first statement by now
      beginning = null
    }
  }
  client.begin = ending as typeof client.begin
}

/** What comes of the work, while its connection stands; else nothing ever, so that the driver rolls nothing back. */
const unlessLost = (work: () => unknown, isLost: () => boolean) =>
  new Promise((done, failed) => {
    Promise.resolve()
      .then(work)
      .then(
        value => {
          if (!isLost()) done(value)
        },
        (error: Error) => {
          if (!isLost()) failed(error)
        },
      )
  })

/** Refuses statements of a transaction whose connection is gone. */
function refusing(sql: postgres.TransactionSql, isLost: () => boolean): postgres.TransactionSql {
  const { unsafe, savepoint } = sql
  const unlessGone =
    <A extends unknown[], R>(call: (...args: A) => R) =>
    (...args: A): R => {
      if (isLost()) throw gone()
      return call(...args)
    }
  sql.unsafe = unlessGone(unsafe) as typeof sql.unsafe
  sql.savepoint = unlessGone(savepoint as (...args: unknown[]) => unknown) as typeof sql.savepoint
  return sql
}
