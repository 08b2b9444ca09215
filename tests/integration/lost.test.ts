/** The database is killed in the middle of a transaction: it fails, and its connection serves again at once. */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { afterAll, expect, test } from 'vitest'
import { dataFolder, startServer } from '../../scripts/lib/postgres.mjs'
import { connect } from '../../server/db/client'

const folder = dataFolder(mkdtempSync(join(tmpdir(), 'iron-nozzle-lost-')), '/var/lib/iron-nozzle-lost')
let server = await startServer({ folder, fast: true })
server.dropDatabase('lost')
server.createDatabase('lost')
// one connection: whatever is wrong with it is met by the next who asks
const { db, client } = connect(server.url('lost'), { max: 1 })
afterAll(async () => {
  await client.end({ timeout: 1 })
  await server.stop()
  rmSync(folder, { recursive: true, force: true })
})
const wait = (ms: number) => new Promise(done => setTimeout(done, ms))

test.each([
  ['between two statements', () => wait(800)],
  ['in a statement', () => Promise.resolve()],
])('killed %s', async (_when, until) => {
  const { port } = server
  await db.execute(sql`select 1`)
  const saving = db.transaction(async tx => {
    await tx.execute(sql`select 1`)
    await until()
    await tx.execute(sql`select pg_sleep(${2})`)
  })
  // looked at only after the wait, so it is not unhandled until then
  const failed = expect(saving).rejects.toThrow()
  await wait(300)
  server.child.kill('SIGKILL')
  await failed
  // what the driver wrote late was an error that nobody could catch: it fails this file
  await wait(1000)
  server = await startServer({ folder, fast: true, port })
  const began = Date.now()
  await db.execute(sql`select 1`)
  expect(Date.now() - began, 'it does not wait for a connection that never opens').toBeLessThan(4000)
})
