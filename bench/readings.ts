/**
 * Run by itself, after a build: node --import tsx bench/readings.ts [--quick] [/api/prepare]
 *
 * Every reading of the API on ten years of a large shop: 60 printers, 5 000 nozzles, 2 000 spools, 1 000 000 runs
 * (`--quick`: 50 000). Each GET of the list of routes is asked of the built server: alone, and with twenty at once.
 * Budgets: p95 under 50 ms alone and under 500 ms with twenty, under 300 KB; the server under 300 MB. Ratios are to a
 * GET that reads nothing (`/api/health`), and to what the same queries take in the database itself
 * (pg_stat_statements: planning and execution, one after the other). Those that miss a budget come first.
 */
import { Agent, get } from 'node:http'
import { setTimeout as sleep } from 'node:timers/promises'
import { READS } from '#shared/api'
import { pathOf } from '#shared/paths'
import { tenYears } from './ten-years'

const ALONE_MS = 50
const TWENTY_MS = 500
const MOST_KB = 300
const MOST_MB = 300
const CLIENTS = 20
/** Asked so often before it is measured: each connection has then planned what it asks, and the code is warm. */
const WARM = 15

const { base: address, client, memoryMb, stop } = await tenYears(process.argv.includes('--quick') ? 50_000 : 1_000_000)
const url = (path: string) => address + path

/** What fills a path: what was printed on last, as a person would ask. */
const LAST = { tag: 'N-4990', id: 1 }
const PARAMS: Record<string, Record<string, string | number> | null> = {
  '/api/spools/{tag}': { tag: 'S-1990' },
  '/api/edits/{kind}/{id}': { kind: 'settings', id: 1 },
  '/api/entered/{kind}/{id}': { kind: 'run', id: 1 },
  '/api/prechecks/{id}': { id: 19_990 },
  '/api/nozzles/{tag}': { tag: 'N-4870' },
  '/api/swaps/{id}': { id: 5 },
  '/api/clogs/{id}': { id: 5 },
  '/api/levels/{id}': { id: 5 },
  '/api/hotend-swaps/{id}': { id: 5 },
  '/api/bench-plans/{id}': { id: 5 },
  // nothing of it in this shop, or no device
  '/api/jobs/{id}': null,
  '/api/benches/{id}': null,
  '/api/cases/{id}': null,
  '/api/procedures/{id}': null,
  '/api/balance': null,
  '/api/thermometer': null,
}
const p95 = (v: number[]) => v.sort((a, b) => a - b)[Math.floor(v.length * 0.95)]!
/** Nobody waits longer than this: it counts as if it had taken so long. */
const PATIENCE_MS = 10_000
const agent = new Agent({ keepAlive: true })
/** Until the last byte is here, as it goes over the network: unpacking is the asker's work. */
const one = (path: string) =>
  new Promise<{ ms: number; bytes: number }>((done, failed) => {
    const t = performance.now()
    let bytes = 0
    const end = () => done({ ms: performance.now() - t, bytes })
    const asked = get(url(path), { agent, headers: { 'accept-encoding': 'gzip' } }, answer => {
      if (answer.statusCode !== 200) failed(new Error(`${path} answered ${answer.statusCode}`))
      answer.on('data', (piece: Buffer) => (bytes += piece.length))
      answer.on('end', end)
    })
    asked.on('error', failed)
    asked.setTimeout(PATIENCE_MS, () => {
      asked.removeAllListeners('error').on('error', () => {})
      asked.destroy()
      end()
    })
  })
/** What was asked by twenty and given up is still worked on: the next is measured when that is done. */
async function settled(): Promise<void> {
  for (let quick = 0; quick < 3; quick = (await one('/api/health')).ms < 20 ? quick + 1 : 0) await sleep(50)
}
/** What all queries since the last reset took in the database, but for this one and what keeps the news alive. */
async function databaseMs(): Promise<number> {
  const [row] = await client<{ ms: number }[]>`
    select coalesce(sum(total_exec_time + total_plan_time), 0) ms from pg_stat_statements
    where query !~* '^(listen|select pg_notify|select pg_stat)' and query not like '%forecasts f%stale%'`
  return row!.ms
}
/** The slowest are asked less often: nobody waits an hour for a benchmark. */
async function measure(path: string) {
  await settled()
  const first = await one(path)
  const times = Math.max(3, Math.min(40, Math.floor(4000 / first.ms)))
  for (let i = 0; i < Math.min(times, WARM); i++) await one(path)
  await client`select pg_stat_statements_reset()`
  const alone: number[] = []
  for (let i = 0; i < times; i++) alone.push((await one(path)).ms)
  const inDatabase = (await databaseMs()) / times
  const twenty: number[] = []
  const each = Math.max(1, Math.min(5, Math.floor(1000 / first.ms)))
  await Promise.all(
    Array.from({ length: CLIENTS }, async () => {
      for (let i = 0; i < each; i++) twenty.push((await one(path)).ms)
    }),
  )
  return { path, first: first.ms, alone: p95(alone), twenty: p95(twenty), kb: first.bytes / 1000, inDatabase }
}
const base = await measure('/api/health')
const rows: Awaited<ReturnType<typeof measure>>[] = []
let mostMb = 0
const only = process.argv.find(a => a.startsWith('/api/'))
for (const path of Object.keys(READS)) {
  const params = path in PARAMS ? PARAMS[path]! : LAST
  if (params === null || path === '/api/health' || (only !== undefined && path !== only)) continue
  const row = await measure(pathOf(path, params))
  rows.push(row)
  process.stderr.write(`${row.path} ${row.alone.toFixed(0)} ms\n`)
  mostMb = Math.max(mostMb, memoryMb())
}
const misses = (r: (typeof rows)[number]) => r.alone > ALONE_MS || r.twenty > TWENTY_MS || r.kb > MOST_KB
rows.sort((a, b) => Number(misses(b)) - Number(misses(a)) || b.alone - a.alone)
console.log('                                       first  p95 alone   with 20      size   / health  / queries')
for (const r of rows)
  console.log(
    `${misses(r) ? 'over' : '    '} ${r.path.padEnd(30)} ${r.first.toFixed(0).padStart(5)} ms ` +
      `${r.alone.toFixed(0).padStart(7)} ms ` +
      `${r.twenty.toFixed(0).padStart(7)} ms ${r.kb.toFixed(0).padStart(6)} KB ` +
      (r.alone / base.alone).toFixed(1).padStart(8) +
      (r.inDatabase > 0.2 ? (r.alone / r.inDatabase).toFixed(1) : '–').padStart(10),
  )
console.log(
  `${rows.filter(misses).length} of ${rows.length} over a budget (${ALONE_MS} ms, ${TWENTY_MS} ms, ${MOST_KB} KB); ` +
    `server at most ${mostMb.toFixed(0)} MB (budget ${MOST_MB})`,
)
await stop()
