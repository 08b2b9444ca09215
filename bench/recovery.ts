/**
 * Run by itself: node --import tsx bench/recovery.ts. `npm start` in an empty shop takes a thousand entries while its
 * application and its database are killed (kill −9) ten times each. Every entry is sent until it is answered, under one
 * key. Budgets: none lost, none doubled, each time back without hands within 15 s; open screens hear news again.
 */
import { spawn } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import postgres from 'postgres'
import { dataFolder, freePort } from '../scripts/lib/postgres.mjs'

const ENTRIES = 1000
const KILLS = 10
const BUDGET_S = 15
const EVERY_MS = 6000

const folder = dataFolder(mkdtempSync(join(tmpdir(), 'iron-nozzle-recovery-')), '/var/lib/iron-nozzle-recovery')
rmSync(folder, { recursive: true, force: true })
const port = await freePort()
const start = spawn(process.execPath, ['scripts/start.mjs', '--shop', '--port', String(port)], {
  cwd: new URL('..', import.meta.url).pathname,
  env: { ...process.env, IRON_NOZZLE_DATA: folder, DATABASE_URL: '' },
  stdio: ['ignore', 'pipe', 'inherit'],
})
let said = ''
start.stdout.on('data', d => (said += String(d)))
const base = `http://127.0.0.1:${port}`
async function until(is: () => boolean | Promise<boolean>, ms: number): Promise<number> {
  const from = performance.now()
  while (!(await is())) {
    if (performance.now() - from > ms) throw new Error(`not within ${ms} ms`)
    await sleep(50)
  }
  return performance.now() - from
}
await until(() => said.includes('Ready in'), 300_000)

/** Sent until it is answered; how often is counted. */
let tries = 0
async function send(path: string, body: unknown, key: string): Promise<Record<string, unknown>> {
  for (;;) {
    tries++
    try {
      const r = await fetch(base + path, {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'idempotency-key': key },
        body: JSON.stringify(body),
        signal: AbortSignal.timeout(5000),
      })
      const answer = (await r.json()) as Record<string, unknown>
      if (r.status === 201) return answer
      if (r.status < 500) throw new Error(`${path} ${r.status}: ${JSON.stringify(answer)}`, { cause: 'refused' })
    } catch (error) {
      if ((error as Error).cause === 'refused') throw error
    }
    await sleep(200)
  }
}
const now = () => new Date().toISOString()
const sensor = { kind: 'bead thermistor, 10-bit reading', head: 0 }
const printer = await send(
  '/api/printers',
  { name: 'One', kind: 'open', heads: [{ name: 'head' }], parts: [sensor] },
  'recovery-printer',
)
let sent = 0
let news = 0
void listen()

async function listen(): Promise<void> {
  for (;;) {
    try {
      const stream = await fetch(`${base}/api/events`)
      for await (const piece of stream.body!.pipeThrough(new TextDecoderStream()))
        if (String(piece).includes('event: saved')) news++
    } catch {
      await sleep(200)
    }
  }
}

const database = () => Number(readFileSync(join(folder, 'cluster/postmaster.pid'), 'utf8').split('\n')[0])
/** The child of the start command that runs the application. */
function application(): number {
  const children = readFileSync(`/proc/${start.pid}/task/${start.pid}/children`, 'utf8').trim().split(' ')
  return Number(children.find(p => readFileSync(`/proc/${p}/cmdline`, 'utf8').includes('server/index.mjs')) ?? 0)
}
const answers = () =>
  fetch(`${base}/api/floor`, { signal: AbortSignal.timeout(1000) }).then(
    r => r.ok,
    () => false,
  )

const worst = { application: 0, database: 0, news: 0 }
let isOver = false
async function killing(): Promise<void> {
  for (let i = 0; i < 2 * KILLS; i++) {
    await sleep(EVERY_MS)
    const what = i % 2 === 0 ? 'application' : 'database'
    process.kill(what === 'application' ? application() : database(), 'SIGKILL')
    await sleep(100)
    const ms = await until(answers, 60_000)
    worst[what] = Math.max(worst[what], ms + 100)
    const heard = news
    worst.news = Math.max(worst.news, await until(() => news > heard, 60_000))
    process.stderr.write(`${what} back after ${((ms + 100) / 1000).toFixed(1)} s, ${sent} entries\n`)
  }
  isOver = true
}
const work = killing()
for (let i = 0; !isOver || i < ENTRIES; i++) {
  await send('/api/notes', { printerId: printer.id, says: `entry ${i}`, occurredAt: now() }, `recovery-entry-${i}`)
  sent++
  await sleep(isOver ? 0 : (2 * KILLS * (EVERY_MS + 1500)) / ENTRIES - 15)
}
await work
const client = postgres(readFileSync(join(folder, 'running'), 'utf8'), { max: 1 })
const [row] = await client<{ n: number; different: number }[]>`
  select count(*)::int n, count(distinct says)::int different from shift_notes`
await client.end()
const lost = sent - row!.different
const doubled = row!.n - row!.different
console.log(`${sent} entries, sent ${tries} times, ${2 * KILLS} kills: ${lost} lost, ${doubled} doubled`)
console.log(
  `back after at most ${(worst.application / 1000).toFixed(1)} s (application), ` +
    `${(worst.database / 1000).toFixed(1)} s (database), news ${(worst.news / 1000).toFixed(1)} s later ` +
    `(budget ${BUDGET_S} s)`,
)
start.kill('SIGTERM')
await new Promise(done => start.once('exit', done))
if (existsSync(folder)) rmSync(folder, { recursive: true, force: true })
process.exit(lost + doubled === 0 && Math.max(worst.application, worst.database) < BUDGET_S * 1000 ? 0 : 1)
