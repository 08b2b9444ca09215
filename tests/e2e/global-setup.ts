/** A PostgreSQL, a demo shop and an empty shop, each served by the built application on a port of its own. */
import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { dataFolder, freePort, startServer } from '../../scripts/lib/postgres.mjs'
import { SERVERS_FILE, type Servers } from './support'

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
  const { printers, balance } = JSON.parse(line) as { printers: Record<string, string>; balance: string }
  return { child, env: { PRINTER_LINKS: JSON.stringify(printers), BALANCE_LINK: balance, STAND_INS: '1' } }
}

export default async function setup() {
  const folder = dataFolder(mkdtempSync(join(tmpdir(), 'iron-nozzle-')), '/var/lib/iron-nozzle-tests')
  const server = await startServer({ folder, fast: true })
  for (const name of ['e2e_demo', 'e2e_shop', 'e2e_fuzz', 'e2e_api', 'e2e_check']) server.dropDatabase(name)
  for (const name of ['e2e_demo', 'e2e_shop']) server.createDatabase(name)
  const loaded = spawnSync('npx', ['tsx', 'scripts/demo.ts'], {
    cwd: root,
    env: { ...process.env, DATABASE_URL: server.url('e2e_demo') },
    encoding: 'utf8',
  })
  if (loaded.status !== 0) throw new Error(loaded.stderr)
  for (const copy of ['e2e_fuzz', 'e2e_api', 'e2e_check']) server.createDatabase(copy, 'e2e_demo')
  const servers: Servers = {
    demo: { port: await freePort(), url: server.url('e2e_demo') },
    shop: { port: await freePort(), url: server.url('e2e_shop') },
    fuzz: { url: server.url('e2e_fuzz') },
    api: { url: server.url('e2e_api') },
    check: { url: server.url('e2e_check') },
  }
  const sim = await standIns()
  const children = [
    sim.child,
    await serve(servers.demo.url, servers.demo.port, sim.env),
    await serve(servers.shop.url, servers.shop.port),
  ]
  writeFileSync(SERVERS_FILE, JSON.stringify(servers))
  return async () => {
    for (const c of children) c.kill('SIGTERM')
    await server.stop()
    rmSync(folder, { recursive: true, force: true })
    rmSync(SERVERS_FILE, { force: true })
  }
}
