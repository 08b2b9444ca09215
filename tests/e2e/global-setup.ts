/** A PostgreSQL, and for each worker a demo shop and an empty shop, each served by the built application. */
import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { dataFolder, freePort, startServer } from '../../scripts/lib/postgres.mjs'
import { demoCopy, restoreDemo } from '../demo-copy'
import { SERVERS_FILE, WORKERS, type ServersFile } from './support'

const root = join(import.meta.dirname, '../..')

export async function serve(url: string, port: number, more: Record<string, string> = {}): Promise<ChildProcess> {
  const child = spawn(process.execPath, ['.output/server/index.mjs'], {
    cwd: root,
    env: { ...process.env, ...more, DATABASE_URL: url, PORT: String(port), HOST: '127.0.0.1', NODE_ENV: 'production' },
    stdio: 'ignore',
  })
  for (let i = 0; i < 200; i++) {
    if (
      await fetch(`http://127.0.0.1:${port}/api/health`).then(
        r => r.ok,
        () => false,
      )
    )
      return child
    await new Promise(done => setTimeout(done, 100))
  }
  throw new Error('the application does not answer')
}

/** The demo's stand-ins, living sixty times as fast; they go when their standard input does. */
export async function standIns(): Promise<{ child: ChildProcess; env: Record<string, string> }> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'sim/main.ts', '--speed', '60'], {
    cwd: root,
    stdio: ['pipe', 'pipe', 'inherit'],
  })
  const line = await new Promise<string>((done, failed) => {
    child.stdout!.once('data', d => done(String(d)))
    child.once('exit', code => failed(new Error(`the stand-ins stopped with ${code}`)))
  })
  const { printers, balance, fineBalance, microscope, thermometer } = JSON.parse(line) as {
    printers: Record<string, string>
    balance: string
    fineBalance: string
    microscope: string
    thermometer: string
  }
  return {
    child,
    env: {
      PRINTER_LINKS: JSON.stringify(printers),
      BALANCE_LINK: balance,
      FINE_BALANCE_LINK: fineBalance,
      MICROSCOPE_LINK: microscope,
      THERMOMETER_LINK: thermometer,
      STAND_INS: '1',
    },
  }
}

export default async function setup() {
  const folder = dataFolder(mkdtempSync(join(tmpdir(), 'iron-nozzle-')), '/var/lib/iron-nozzle-browser-tests')
  const server = await startServer({ folder, fast: true })
  const made = (name: string, from?: string) => {
    server.dropDatabase(name)
    server.createDatabase(name, from)
    return server.url(name)
  }
  const copy = demoCopy()
  const demo = made('e2e_demo')
  if (copy !== null) restoreDemo(copy.file, demo)
  else {
    const loaded = spawnSync('npx', ['tsx', 'scripts/demo.ts'], {
      cwd: root,
      env: { ...process.env, DATABASE_URL: demo },
      encoding: 'utf8',
    })
    if (loaded.status !== 0) throw new Error(loaded.stderr)
  }
  const children: ChildProcess[] = []
  const file: ServersFile = { workers: [], maker: server.url('postgres'), template: 'e2e_demo' }
  for (let i = 0; i < WORKERS; i++) {
    const demo = { port: await freePort(), url: made(`e2e_demo_${i}`, 'e2e_demo') }
    const shop = { port: await freePort(), url: made(`e2e_shop_${i}`) }
    const sim = await standIns()
    children.push(sim.child, await serve(demo.url, demo.port, sim.env), await serve(shop.url, shop.port))
    file.workers.push({ demo, shop })
  }
  writeFileSync(SERVERS_FILE, JSON.stringify(file))
  return async () => {
    for (const c of children) c.kill('SIGTERM')
    await server.stop()
    rmSync(folder, { recursive: true, force: true })
    rmSync(SERVERS_FILE, { force: true })
  }
}
