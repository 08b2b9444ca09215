/**
 * Run by itself, after a build: node --import tsx bench/readings.ts [--quick] [/api/prepare]
 *
 * Every reading of the API on ten years of a large shop: 60 printers, 5 000 nozzles, 2 000 spools, 1 000 000 runs
 * (`--quick`: 50 000). Each GET of the list of routes is asked of the built server: alone, and with twenty at once.
 * Budgets: p95 under 50 ms alone and under 500 ms with twenty, under 300 KB; the server under 300 MB. The ratio is to a
 * GET that reads nothing (`/api/health`) in the same run. Those that miss a budget come first.
 */
import { spawn } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { dataFolder, freePort, startServer } from '../scripts/lib/postgres.mjs'
import { WEAR_MODEL } from '#core/wear'
import { pathOf, READS } from '#shared/api'
import { connect } from '../server/db/client'
import { migrationFiles } from '../server/db/files'
import { migrate } from '../server/db/migrate'
import { refreshForecast } from '../server/records/nozzles/forecasts'
import { refreshCeilings } from '../server/records/printers/ceilings'
import { firstPeople } from '../server/records/shop/people'

const ALONE_MS = 50
const TWENTY_MS = 500
const MOST_KB = 300
const MOST_MB = 300
const CLIENTS = 20

const isQuick = process.argv.includes('--quick')
const runs = isQuick ? 50_000 : 1_000_000
const built = new URL('../.output/server/index.mjs', import.meta.url)
if (!existsSync(built)) throw new Error('The application is not built: npx nuxt build')

const folder = dataFolder(mkdtempSync(join(tmpdir(), 'iron-nozzle-bench-')), '/var/lib/iron-nozzle-bench')
const postgres = await startServer({ folder, fast: true })
postgres.dropDatabase('readings')
postgres.createDatabase('readings')
const { client, db } = connect(postgres.url('readings'), { max: 2 })
await migrate(client, migrationFiles())
await firstPeople(db)
const filling = performance.now()
for (const file of ['shop.sql', 'readings.sql', 'derive.sql']) {
  const sql = readFileSync(new URL(`./${file}`, import.meta.url), 'utf8')
  await client.unsafe(sql.replaceAll(':runs', String(runs)).replaceAll(':model', String(WEAR_MODEL)))
}
await db.transaction(tx => refreshCeilings(tx))
for (let id = 4821; id <= 5000; id++) await db.transaction(tx => refreshForecast(tx, id))
console.log(`filled with ${runs} runs in ${((performance.now() - filling) / 1000).toFixed(0)} s (budget 180)`)
await client.end()

const port = await freePort()
const server = spawn(process.execPath, [built.pathname], {
  env: { ...process.env, DATABASE_URL: postgres.url('readings'), PORT: String(port), HOST: '127.0.0.1' },
  stdio: ['ignore', 'ignore', 'inherit'],
})
const url = (path: string) => `http://127.0.0.1:${port}${path}`
for (let i = 0; i < 200; i++) {
  if (
    await fetch(url('/api/health')).then(
      r => r.ok,
      () => false,
    )
  )
    break
  await sleep(100)
}

/** What fills a path: what was printed on last, as a person would ask. */
const LAST = { tag: 'N-4990', id: 1 }
const PARAMS: Record<string, Record<string, string | number> | null> = {
  '/api/spools/{tag}': { tag: 'S-1990' },
  '/api/edits/{kind}/{id}': { kind: 'settings', id: 1 },
  '/api/prechecks/{id}': { id: 19_990 },
  '/api/nozzles/{tag}': { tag: 'N-4870' },
  '/api/swaps/{id}': { id: 5 },
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
async function one(path: string): Promise<{ ms: number; bytes: number }> {
  const t = performance.now()
  let bytes = 0
  try {
    const r = await fetch(url(path), { signal: AbortSignal.timeout(PATIENCE_MS) })
    const body = await r.arrayBuffer()
    // what goes over the network
    bytes = Number(r.headers.get('content-length') ?? body.byteLength)
    if (!r.ok) throw new Error(`${path} answered ${r.status}`)
  } catch (error) {
    if (!(error instanceof DOMException)) throw error
  }
  return { ms: performance.now() - t, bytes }
}
/** What was asked by twenty and given up is still worked on: the next is measured when that is done. */
async function settled(): Promise<void> {
  for (let quick = 0; quick < 3; quick = (await one('/api/health')).ms < 20 ? quick + 1 : 0) await sleep(50)
}
/** The slowest are asked less often: nobody waits an hour for a benchmark. */
async function measure(path: string) {
  await settled()
  const first = await one(path)
  const times = Math.max(3, Math.min(40, Math.floor(4000 / first.ms)))
  const alone: number[] = []
  for (let i = 0; i < times; i++) alone.push((await one(path)).ms)
  const twenty: number[] = []
  const each = Math.max(1, Math.min(5, Math.floor(1000 / first.ms)))
  await Promise.all(
    Array.from({ length: CLIENTS }, async () => {
      for (let i = 0; i < each; i++) twenty.push((await one(path)).ms)
    }),
  )
  return { path, alone: p95(alone), twenty: p95(twenty), kb: first.bytes / 1000 }
}
const rss = () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, 'utf8'))![1]) / 1000

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
  mostMb = Math.max(mostMb, rss())
}
const misses = (r: (typeof rows)[number]) => r.alone > ALONE_MS || r.twenty > TWENTY_MS || r.kb > MOST_KB
rows.sort((a, b) => Number(misses(b)) - Number(misses(a)) || b.alone - a.alone)
console.log('                                     p95 alone   with 20      size   alone / health')
for (const r of rows)
  console.log(
    `${misses(r) ? 'over' : '    '} ${r.path.padEnd(30)} ${r.alone.toFixed(0).padStart(7)} ms ` +
      `${r.twenty.toFixed(0).padStart(7)} ms ${r.kb.toFixed(0).padStart(6)} KB ` +
      (r.alone / base.alone).toFixed(1).padStart(8),
  )
console.log(
  `${rows.filter(misses).length} of ${rows.length} over a budget (${ALONE_MS} ms, ${TWENTY_MS} ms, ${MOST_KB} KB); ` +
    `server at most ${mostMb.toFixed(0)} MB (budget ${MOST_MB})`,
)
server.kill('SIGTERM')
await postgres.stop()
rmSync(folder, { recursive: true, force: true })
