/** Brings the schema up at start, works out stale forecasts in the background, and closes the pool at the end. */
import { isAnyMissing, refreshMissing, refreshStale } from '../records/nozzles/forecasts'
import { setTimeout as sleep } from 'node:timers/promises'
import { dailyChores } from '../records/entry/chores'
import { refreshStands } from '../records/spools/stands'
import { closeDatabase, database } from '../db/database'
import type { Database } from '../db/client'
import { forgetNews } from '../doors/news'

const EVERY_MS = 2000
/** What is done once a day is asked about so often. */
const CHORES_EVERY_MS = 3_600_000
/** Others get their turn between two pieces of background work. */
const PAUSE_MS = 50

export default defineNitroPlugin(nitro => {
  let stopped = false
  let timer: ReturnType<typeof setTimeout> | undefined
  let choresAt = 0
  const chores = async (db: Database) => {
    if (Date.now() < choresAt) return
    await dailyChores(db)
    choresAt = Date.now() + CHORES_EVERY_MS
  }
  const round = async () => {
    try {
      const db = await database()
      if (await isAnyMissing(db)) await refreshMissing(db)
      await refreshStale(db)
      await chores(db)
      while (!stopped && (await refreshStands(db)) > 0) await sleep(PAUSE_MS)
    } catch {
      /* the database is away; the next round tries again */
    }
    if (!stopped) timer = setTimeout(() => void round(), EVERY_MS)
  }
  database()
    .then(refreshMissing)
    .catch((error: unknown) => console.error('database:', error instanceof Error ? error.message : error))
    .finally(() => void round())
  nitro.hooks.hook('close', async () => {
    stopped = true
    clearTimeout(timer)
    forgetNews()
    await closeDatabase()
  })
})
