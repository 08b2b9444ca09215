/**
 * The database is killed in the middle of a transaction: it fails, its connection serves again at once, and what its
 * work still wanted to write is written nowhere.
 */
import { mkdtempSync, rmSync } from 'node:fs'
import { createServer, type AddressInfo } from 'node:net'
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
await db.execute(sql`create table written (says text)`)
// a server made fast for tests writes late: a kill would take the table with it
await db.execute(sql`checkpoint`)
afterAll(async () => {
  await client.end({ timeout: 1 })
  await server.stop()
  rmSync(folder, { recursive: true, force: true })
})
const wait = (ms: number) => new Promise(done => setTimeout(done, ms))

/** Killed some ms from now, and there again: answers how long the next reading took, ms. */
async function killedAndBack(): Promise<number> {
  const { port } = server
  await wait(300)
  server.child.kill('SIGKILL')
  // what the driver writes late is an error that nobody can catch: it fails this file
  await wait(700)
  server = await startServer({ folder, fast: true, port })
  const began = Date.now()
  await db.execute(sql`select 1`)
  return Date.now() - began
}

test.each([
  ['in a statement', 0],
  ['between two statements', 600],
])('killed %s', async (_when, ms) => {
  await db.execute(sql`select 1`)
  const saving = db.transaction(async tx => {
    await tx.execute(sql`select 1`)
    await wait(ms)
    await tx.execute(sql`select pg_sleep(${2})`)
  })
  const failed = expect(saving).rejects.toThrow()
  expect(await killedAndBack(), 'it waits for no connection that never opens').toBeLessThan(4000)
  await failed
})

test('work that goes on after its transaction writes nothing, in nobody else’s either', async () => {
  await db.execute(sql`select 1`)
  let back: () => void = () => {}
  const isBack = new Promise<void>(done => {
    back = done
  })
  let refused: unknown = null
  const saving = db.transaction(async tx => {
    await tx.execute(sql`insert into written values ('before')`)
    await isBack
    await tx.execute(sql`insert into written values ('late')`).catch((error: unknown) => {
      refused = error
      throw error
    })
  })
  const failed = expect(saving).rejects.toThrow()
  await killedAndBack()
  await failed
  // another has the same connection by now
  await db.transaction(async tx => {
    await tx.execute(sql`insert into written values ('another')`)
    back()
    await wait(200)
  })
  expect(refused).not.toBe(null)
  expect((await db.execute<{ says: string }>(sql`select says from written`)).map(r => r.says)).toEqual(['another'])
})

test('a connection that dies at its first question fails that question, and nothing uncaught', async () => {
  // a server that lets everybody in (AuthenticationOk, ReadyForQuery) and goes when it is asked something
  const letsIn = Buffer.from([0x52, 0, 0, 0, 8, 0, 0, 0, 0, 0x5a, 0, 0, 0, 5, 0x49])
  const dying = createServer(socket => {
    socket.on('error', () => {})
    socket.once('data', () => {
      socket.write(letsIn)
      socket.once('data', () => socket.resetAndDestroy())
    })
  })
  await new Promise<void>(done => dying.listen(0, '127.0.0.1', done))
  const { port } = dying.address() as AddressInfo
  const other = connect(`postgres://shop@127.0.0.1:${port}/shop`, { max: 1 })
  const nobodyCaught: unknown[] = []
  const tell = (error: unknown) => nobodyCaught.push(error)
  process.on('unhandledRejection', tell)
  await expect(other.client`select 1`).rejects.toThrow(/ECONNRESET|CONNECTION_CLOSED/)
  await wait(100)
  process.off('unhandledRejection', tell)
  expect(nobodyCaught).toEqual([])
  await other.client.end({ timeout: 0 })
  dying.close()
})
