/**
 * Saves one entry and kills its own process, as a power cut would, when statement KILL_AT is about to be sent: a run,
 * or the end of a procedure.
 */
import { drizzle } from 'drizzle-orm/postgres-js'
import postgres from 'postgres'
import { endingSchema } from '#shared/entries/log'
import { runSchema } from '#shared/entries/runs'
import type { Connection } from '../../server/db/client'
import * as schema from '../../server/db/schema'
import { once } from '../../server/records/entry/answers'
import { saveEnding } from '../../server/records/entry/endings'
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
const given: unknown = JSON.parse(process.env.BODY!)
const route = process.env.ROUTE ?? '/api/runs'
const body = route === '/api/runs' ? runSchema.parse(given) : endingSchema.parse(given)
const save = (tx: Connection) =>
  route === '/api/runs'
    ? saveRun(tx, body as Parameters<typeof saveRun>[1], 1)
    : saveEnding(tx, body as Parameters<typeof saveEnding>[1], 1)
await once<unknown>(db, { key: process.env.KEY!, route, body, personId: 1 }, save)
await client.end()
