/** One connection pool for the process; ready when the schema is. */
import type postgres from 'postgres'
import { connect, type Database } from './client'
import { migrate, type Migration } from './migrate'
import { refreshMissingCeilings } from '../records/printers/ceilings'
import { markOtherModels } from '../records/nozzles/forecasts'
import { firstPeople } from '../records/shop/people'
import { Refusal } from '../records/entry/refusal'
import { forgetNews } from '../doors/news'

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

/** The client beneath, for LISTEN. */
export async function databaseClient(): Promise<postgres.Sql> {
  await database()
  return pool!.client
}

export async function closeDatabase(): Promise<void> {
  await pool?.client.end({ timeout: 3 })
  pool = null
  ready = null
  forgetNews()
}
