/** One connection pool for the process; ready when the schema is. */
import { connect, type Database } from './client'
import { Listener } from './listener'
import { migrate, type Migration } from './migrate'
import { refreshMissingCeilings } from '../records/printers/ceilings'
import { markOtherModels } from '../records/nozzles/forecasts'
import { firstPeople } from '../records/shop/people'
import { Refusal } from '../records/entry/refusal'

let pool: ReturnType<typeof connect> | null = null
let ready: Promise<void> | null = null

async function migrations(): Promise<Migration[]> {
  const storage = useStorage('assets:migrations')
  const names = await storage.getKeys()
  return await Promise.all(names.map(async name => ({ name, sql: String(await storage.getItem(name)) })))
}

async function prepare(): Promise<void> {
  await migrate(pool!.client, await migrations())
  await firstPeople(pool!.db)
  await refreshMissingCeilings(pool!.db)
  await markOtherModels(pool!.db)
}

export async function database(): Promise<Database> {
  if (pool === null) {
    const url = process.env.DATABASE_URL
    if (!url)
      throw new Refusal({
        type: 'urn:iron-nozzle:database',
        status: 503,
        title: 'DATABASE_URL is not set; start with npm start',
      })
    pool = connect(url)
  }
  ready ??= prepare()
  try {
    await ready
  } catch (error) {
    ready = null
    throw error
  } // try again with the next request
  return pool.db
}

/**
 * Where LISTEN and the leases of printers connect: they need a session of their own, which a pooler in between that
 * shares connections among transactions does not give.
 */
export const directUrl = (): string => process.env.DATABASE_DIRECT_URL ?? process.env.DATABASE_URL ?? ''

/** What is asked of a host that may be gone is waited for so long. */
const GIVE_UP_S = 2

/**
 * The host has gone silent without closing a connection: whoever waits on one would wait as long as TCP does. The pool
 * is let go, and made anew for all that is asked from now on.
 */
function renew(): void {
  if (pool === null) return
  const { client } = pool
  pool = connect(process.env.DATABASE_URL!)
  void client.end({ timeout: GIVE_UP_S }).catch(() => {})
}

/** One connection of the process that listens, for news and for reports of printers. */
let listening: Listener | null = null
export const listener = (): Listener => (listening ??= new Listener(directUrl(), renew))

export async function closeDatabase(): Promise<void> {
  await pool?.client.end({ timeout: 3 })
  pool = null
  ready = null
  await listening?.stop()
  listening = null
}
