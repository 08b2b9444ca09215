/** Saves one run and kills its own process, as a power cut would, when statement KILL_AT is about to be sent. */
import { drizzle } from 'drizzle-orm/postgres-js'
import postgres from 'postgres'
import { runSchema } from '#shared/entries/runs'
import * as schema from '../../server/db/schema'
import { once } from '../../server/records/entry/answers'
import { saveRun } from '../../server/records/runs/runs'

const at = Number(process.env.KILL_AT)
let statements = 0
const client = postgres(process.env.DATABASE_URL!, {
  max: 1,
  onnotice: () => {},
  debug: () => {
    if (++statements === at) process.kill(process.pid, 'SIGKILL')
  },
})
const db = drizzle(client, { schema, casing: 'snake_case' })
const body = runSchema.parse(JSON.parse(process.env.BODY!))
await once(db, { key: process.env.KEY!, route: '/api/runs', body, personId: 1 }, tx => saveRun(tx, body, 1))
await client.end()
