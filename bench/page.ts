/**
 * Run by itself after `npx nuxt build`: node --import tsx bench/page.ts. What a page costs a browser that has never
 * seen it: script asked for until it is shown (budget 180 KB without charts), all that is asked for, and the browser's
 * processor time against the same page with its script refused, in the same run. In an empty shop: it is the loading
 * that is measured.
 */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { chromium, type Request } from '@playwright/test'
import { LIGHT } from '../scripts/lib/browser.mjs'
import { dataFolder, freePort, startServer } from '../scripts/lib/postgres.mjs'
import { serve } from '../tests/e2e/global-setup'

const PAGES = ['/', '/due', '/run', '/stores/stock', '/change/upkeep']
const TIMES = 7
const BUDGET_KB = 180
/** Until it is drawn; what is fetched ahead once a screen has stood (plugins/ahead.client.ts) is not in it. */
const QUIET_MS = 1500

const folder = dataFolder(mkdtempSync(join(tmpdir(), 'iron-nozzle-page-')), '/var/lib/iron-nozzle-page')
const server = await startServer({ folder, fast: true })
server.dropDatabase('page')
server.createDatabase('page')
const port = await freePort()
const app = await serve(server.url('page'), port)
const browser = await chromium.launch({ executablePath: LIGHT, args: ['--no-sandbox', '--disable-gpu'] })
const system = await browser.newBrowserCDPSession()
async function processorS(): Promise<number> {
  const { processInfo } = await system.send('SystemInfo.getProcessInfo')
  return processInfo.reduce((s, p) => s + p.cpuTime, 0)
}
const median = (v: number[]) => v.sort((a, b) => a - b)[Math.floor(v.length / 2)]!
const bodyKb = async (r: Request) => (await r.sizes()).responseBodySize / 1000

/** One look at a page by a browser that has nothing of it. */
async function look(path: string, withScript: boolean) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const page = await context.newPage()
  const asked: Request[] = []
  page.on('request', r => asked.push(r))
  if (!withScript) await page.route('**/*.js', route => route.abort())
  const before = await processorS()
  await page.goto(`http://127.0.0.1:${port}${path}`)
  if (withScript) await page.getByRole('heading').first().waitFor()
  const first = asked.filter(r => r.resourceType() === 'script')
  await sleep(QUIET_MS)
  const spentS = (await processorS()) - before
  let scriptKb = 0
  if (withScript) for (const r of first) scriptKb += await bodyKb(r)
  await context.close()
  return { spentS, scriptKb, requests: asked.length }
}

for (const path of PAGES) {
  const shown: Awaited<ReturnType<typeof look>>[] = []
  const bare: typeof shown = []
  for (let i = 0; i < TIMES; i++) {
    shown.push(await look(path, true))
    bare.push(await look(path, false))
  }
  const ours = median(shown.map(x => x.spentS))
  const base = median(bare.map(x => x.spentS))
  console.log(
    `page ${path}: ${median(shown.map(x => x.requests))} requests, ` +
      `${median(shown.map(x => x.scriptKb)).toFixed(0)} KB of script until it is shown (budget ${BUDGET_KB}); ` +
      `${ours.toFixed(2)} s of the browser's processor, without script ${base.toFixed(2)} s; ` +
      `ratio ${(ours / base).toFixed(1)}`,
  )
}
await browser.close()
app.kill('SIGTERM')
await server.stop()
rmSync(folder, { recursive: true, force: true })
