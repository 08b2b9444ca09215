/**
 * A database that is not ours dies and comes back under a running application: within 5 s every reading is right again
 * and every save is news, and nothing is left unhandled. So is one whose host vanishes without closing its connections.
 * A body that does not say how long it is is cut off.
 */
import { spawn, type ChildProcess } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { request as ask } from 'node:http'
import { connect, createServer, type AddressInfo, type Socket } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { dataFolder, freePort, startServer } from '../../scripts/lib/postgres.mjs'
import { listenTo } from './events'

const folder = dataFolder(mkdtempSync(join(tmpdir(), 'iron-nozzle-away-')), '/var/lib/iron-nozzle-away-test')
let database: Awaited<ReturnType<typeof startServer>>
let app: ChildProcess
let said = ''
let port = 0
const READS = ['/api/floor', '/api/shop', '/api/prepare', '/api/equip', '/api/nozzles', '/api/runs']
const url = (path: string) => `http://127.0.0.1:${port}${path}`
const status = (path: string) =>
  fetch(url(path), { signal: AbortSignal.timeout(8000) }).then(
    r => r.status,
    () => 0,
  )
const post = (body: unknown) =>
  fetch(url('/api/people'), {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'idempotency-key': randomBytes(8).toString('hex') },
    body: JSON.stringify(body),
  })
/** Between the application and its database; what goes through can be lost without a word. */
const ways = new Set<Socket>()
const between = createServer(near => {
  const far = connect(database.port, '127.0.0.1')
  for (const [from, to] of [
    [near, far],
    [far, near],
  ] as const) {
    ways.add(from)
    from.on('error', () => to.resetAndDestroy())
    from.on('close', () => {
      ways.delete(from)
      to.destroy()
    })
    from.on('data', d => to.write(d))
  }
})
async function byProxy(of: string): Promise<string> {
  await new Promise<void>(done => between.listen(0, '127.0.0.1', done))
  const to = new URL(of)
  to.port = String((between.address() as AddressInfo).port)
  return to.href
}
/** Open connections stay open, and nothing comes through them any more. */
const vanish = () => {
  for (const s of ways) s.removeAllListeners('data').on('data', () => {})
}
const wait = (ms: number) => new Promise(done => setTimeout(done, ms))

test.beforeAll(async () => {
  database = await startServer({ folder })
  database.createDatabase('away')
  port = await freePort()
  app = spawn(process.execPath, ['.output/server/index.mjs'], {
    env: { ...process.env, DATABASE_URL: await byProxy(database.url('away')), PORT: String(port), HOST: '127.0.0.1' },
    stdio: ['ignore', 'ignore', 'pipe'],
  })
  app.stderr!.on('data', d => (said += String(d)))
  await expect.poll(() => status('/api/floor'), { timeout: 30_000 }).toBe(200)
})
test.afterAll(async () => {
  app.kill('SIGTERM')
  for (const s of ways) s.destroy()
  between.close()
  await database.stop()
  rmSync(folder, { recursive: true, force: true })
})

test('killed and back six times: reads and news are right within 5 s, and nothing is unhandled', async () => {
  test.setTimeout(150_000)
  let news = 0
  const stop = await listenTo(url('/api/events'), event => {
    if (event === 'saved') news++
  })
  for (let round = 0; round < 6; round++) {
    const { port: at } = database
    database.child.kill('SIGKILL')
    // short, and long enough that every connection has noticed
    await wait(round % 2 === 0 ? 300 : 6000)
    if (round % 2 === 1) expect(await status('/api/floor'), 'while it is away').toBe(503)
    database = await startServer({ folder, port: at })
    await wait(5000)
    const heard = news
    expect(await Promise.all(READS.map(status)), `round ${round}`).toEqual(READS.map(() => 200))
    expect((await post({ name: `Person ${round}`, role: 'technician' })).status).toBe(201)
    await expect.poll(() => news, { timeout: 5000 }).toBeGreaterThan(heard)
  }
  stop()
  expect(app.exitCode).toBe(null)
  expect(said).not.toMatch(/uncaught|unhandled/i)
  expect(said.split('\n').length, said.slice(0, 2000)).toBeLessThan(30)
})

test('a host that vanishes without closing its connections is waited for no longer than some seconds', async () => {
  test.setTimeout(60_000)
  let news = 0
  const stop = await listenTo(url('/api/events'), event => {
    if (event === 'saved') news++
  })
  expect(await Promise.all(READS.map(status))).toEqual(READS.map(() => 200))
  vanish()
  await wait(1000)
  // who asks now is answered when the silence is noticed, and not when TCP gives up
  expect(await Promise.all(READS.map(status))).toEqual(READS.map(() => 200))
  await wait(3000)
  const heard = news
  expect((await post({ name: 'Person after silence', role: 'technician' })).status).toBe(201)
  await expect.poll(() => news, { timeout: 5000 }).toBeGreaterThan(heard)
  stop()
  expect(said).not.toMatch(/uncaught|unhandled/i)
})

/** Sent at a pace, so that little is on its way when a busy machine comes to refuse it: 64 KB in so many ms. */
const PACE_MS = 5

test('a body without a length is cut off at the limit, and the server goes on', async () => {
  const sent = await new Promise<{ status: number; bytes: number }>((done, failed) => {
    let bytes = 0
    let ended = false
    const r = ask(
      url('/api/people'),
      {
        method: 'POST',
        headers: {
          'content-type': 'application/json',
          'idempotency-key': 'a-body-without-end',
          'transfer-encoding': 'chunked',
        },
      },
      answer => {
        ended = true
        answer.resume()
        done({ status: answer.statusCode!, bytes })
      },
    )
    r.on('error', e => (ended ? undefined : failed(e)))
    const piece = Buffer.alloc(64_000, 'x')
    const more = () => {
      if (ended || bytes >= 200_000_000) return
      bytes += piece.length
      if (r.write(piece)) setTimeout(more, PACE_MS)
      else r.once('drain', () => setTimeout(more, PACE_MS))
    }
    more()
  })
  expect(sent.status).toBe(413)
  expect(sent.bytes).toBeLessThan(20_000_000)
  expect(await status('/api/floor')).toBe(200)
})
