/**
 * Two processes of the app on one database: what is saved at one is told at the other, a printer is read by one of
 * them, and when that one is killed the other reads it within 10 s, and nothing that was sent is lost or doubled.
 */
import type { ChildProcess } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { expect, test } from '@playwright/test'
import postgres from 'postgres'
import type { Live } from '#shared/answers/live'
import type { NozzlePage } from '#shared/answers/nozzles'
import type { Shop } from '#shared/answers/shop'
import type { News } from '#shared/answers/news'
import { freePort } from '../../scripts/lib/postgres.mjs'
import { listenTo } from './events'
import { serve, standIns } from './global-setup'
import { ownDatabase } from './support'

// none that is given out meanwhile for a connection of somebody's own
const A = await freePort()
const B = await freePort()
const url = (port: number, path: string) => `http://127.0.0.1:${port}${path}`
const read = async <T>(port: number, path: string) => (await (await fetch(url(port, path))).json()) as T
const post = (port: number, path: string, body: unknown, key = randomBytes(8).toString('hex')) =>
  fetch(url(port, path), {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'idempotency-key': key },
    body: JSON.stringify(body),
    signal: AbortSignal.timeout(10_000),
  })
async function until(is: () => boolean | Promise<boolean>, ms: number): Promise<number> {
  const from = Date.now()
  while (!(await is())) {
    expect(Date.now() - from, 'it takes too long').toBeLessThan(ms)
    await new Promise(done => setTimeout(done, 50))
  }
  return Date.now() - from
}

const children: (ChildProcess | undefined)[] = []
const heard: Record<number, Live[]> = { [A]: [], [B]: [] }
const news: Record<number, News[]> = { [A]: [], [B]: [] }
let database = ''
let sql: postgres.Sql
let reader = 0
let sim: Awaited<ReturnType<typeof standIns>>

test.beforeAll(async () => {
  database = await ownDatabase('two')
  sql = postgres(database, { max: 1, onnotice: () => {} })
  sim = await standIns()
  // the first takes all leases
  children[0] = await serve(database, A, sim.env)
  await listenTo(url(A, '/api/events'), (event, data) => {
    if (event === 'live') heard[A]!.push(JSON.parse(data) as Live)
  })
  await until(() => heard[A]!.some(l => l.at !== null), 10_000)
  reader = A
  children[1] = await serve(database, B, sim.env)
  await listenTo(url(B, '/api/events'), (event, data) => {
    if (event === 'live') heard[B]!.push(JSON.parse(data) as Live)
  })
  for (const port of [A, B])
    await listenTo(url(port, '/api/events'), (event, data) => {
      if (event === 'saved') news[port]!.push(JSON.parse(data) as News)
    })
})
test.afterAll(async () => {
  for (const c of children) c?.kill('SIGTERM')
  sim.child.kill('SIGTERM')
  await sql.end()
})

const weigh = (spoolId: number, grossG: number) => ({
  spoolId,
  kind: 'weighed',
  grossG,
  occurredAt: new Date().toISOString(),
  confirmed: ['too-heavy'],
})

test('what is saved at one is told at the other, and is in what it answers', async () => {
  const shop = await read<Shop>(A, '/api/shop')
  const spool = shop.spools.find(s => s.inUse && s.tareG !== null)!
  const grossG = spool.tareG! + 123
  expect((await post(A, '/api/spool-events', weigh(spool.id, grossG))).status).toBe(201)
  const told = () => news[B]!.some(n => n.items.some(i => i.of === 'spool_events' && i.spool === spool.id))
  await until(told, 5000)
  expect((await read<Shop>(B, '/api/shop')).spools.find(s => s.id === spool.id)!.leftG).toBe(123)
  const line = news[B]!.flatMap(n => n.shop.spools).find(s => s.id === spool.id)
  expect(line!.leftG).toBe(123)
})

test('each printer is read by one of them, and its reports reach both', async () => {
  const links = Object.keys(JSON.parse(sim.env.PRINTER_LINKS!) as object)
  const locks = await sql<{ n: number; holders: number }[]>`
    select count(*)::int n, count(distinct pid)::int holders from pg_locks l join pg_database d on d.oid = l.database
    where l.locktype = 'advisory' and l.granted and d.datname = current_database() and l.classid <> 0`
  expect(locks[0]).toEqual({ n: links.length, holders: 1 })
  for (const printer of links) {
    await until(() => heard[B]!.some(l => l.printer === printer && l.at !== null), 10_000)
    const both = heard[B]!.filter(l => l.printer === printer && l.at !== null)
    expect(
      heard[A]!.some(l => l.at === both[both.length - 1]!.at),
      'the very report',
    ).toBe(true)
  }
})

test('the reader is killed in the middle of 60 entries: none is lost or doubled, the other reads on', async () => {
  test.setTimeout(120_000)
  const shop = await read<Shop>(B, '/api/shop')
  const printer = shop.printers.find(p => p.name === 'Ribble')!
  const head = printer.heads[0]!
  const before = await read<NozzlePage>(B, `/api/nozzles/${head.nozzle!}`)
  // the same each time it is sent: what was saved and not answered is told by its key
  const begun = Date.now()
  const run = (i: number) => ({
    printerId: printer.id,
    name: `entry ${i}`,
    endedAt: new Date(begun - (60 - i) * 1000).toISOString(),
    outcome: 'finished',
    confirmed: ['same-run:0', 'not-fitted:0', 'fitted-late:0', 'overlap:0'],
    tools: [
      {
        tool: 0,
        headId: head.id,
        nozzleId: head.nozzleId,
        materialId: shop.materials.find(m => m.fillerFraction > 0)!.id,
        spoolId: null,
        amount: { kind: 'grams', grams: 10 + i },
      },
    ],
  })
  const lost: { key: string; i: number }[] = []
  const send = async (i: number) => {
    const key = `two-processes-${String(i).padStart(3, '0')}`
    const port = i % 2 === 0 ? A : B
    const status = await post(port, '/api/runs', run(i), key).then(
      r => r.status,
      () => 0,
    )
    if (status !== 201) lost.push({ key, i })
    if (status !== 201 && status !== 0) expect.soft(status).toBe(503)
  }
  const heardBefore = heard[B]!.length
  const all = Array.from({ length: 60 }, (_, i) => i)
  for (let from = 0; from < 60; from += 6) {
    if (from === 30) {
      expect(reader).toBe(A)
      children[0]!.kill('SIGKILL')
    }
    await Promise.all(all.slice(from, from + 6).map(send))
  }
  const killedAt = Date.now()
  expect(lost.length).toBeGreaterThan(0)
  for (const { key, i } of lost) expect((await post(B, '/api/runs', run(i), key)).status).toBe(201)
  const [row] = await sql<{ n: number; g: number }[]>`
    select count(*)::int n, sum(t.extruded_g)::float8 g from runs r join run_tools t on t.run_id = r.id
    where r.name like 'entry %'`
  const wanted = all.reduce((sum, i) => sum + 10 + i, 0)
  expect(row).toEqual({ n: 60, g: wanted })
  const after = await read<NozzlePage>(B, `/api/nozzles/${head.nozzle!}`)
  expect(after.extrudedG).toBeCloseTo(before.extrudedG + wanted, 6)
  const reads = () => heard[B]!.slice(heardBefore).some(l => l.at !== null && Date.parse(l.at) > killedAt + 500)
  expect(await until(reads, 12_000)).toBeLessThan(10_000)

  // it comes back, and hears what the other reads now
  children[0] = await serve(database, A, sim.env)
  const again: Live[] = []
  await listenTo(url(A, '/api/events'), (event, data) => {
    if (event === 'live') again.push(JSON.parse(data) as Live)
  })
  await until(() => again.some(l => l.at !== null && Date.parse(l.at) > killedAt + 500), 10_000)
  await until(
    async () => (await sql<{ n: number }[]>`select count(*)::int n from forecasts where stale`)[0]!.n === 0,
    60_000,
  )
})
