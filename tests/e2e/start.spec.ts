/** The start command itself: an empty shop, a second start, stopping, being killed, an existing database. */
import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { dataFolder, freePort } from '../../scripts/lib/postgres.mjs'
import { expect, servers, test } from './support'

const folder = dataFolder(mkdtempSync(join(tmpdir(), 'iron-nozzle-start-')), '/var/lib/iron-nozzle-start-test')
let port = 0
const running: ChildProcess[] = []

function start(...options: string[]) {
  const child = spawn(process.execPath, ['scripts/start.mjs', '--port', String(port), ...options], {
    env: { ...process.env, IRON_NOZZLE_DATA: folder, DATABASE_URL: '' },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  running.push(child)
  let said = ''
  child.stdout!.on('data', d => {
    said += String(d)
  })
  child.stderr!.on('data', d => {
    said += String(d)
  })
  const ended = new Promise<number>(done => child.once('exit', code => done(code ?? -1)))
  return { child, ended, said: () => said }
}
const ready = async (s: ReturnType<typeof start>) => {
  await expect.poll(() => s.said(), { timeout: 90_000 }).toContain(`http://127.0.0.1:${port}/`)
}
const left = () => spawnSync('pgrep', ['-f', folder], { encoding: 'utf8' }).stdout.trim()
const answers = () =>
  fetch(`http://127.0.0.1:${port}/api/health`).then(
    r => r.ok,
    () => false,
  )
const printers = async () =>
  ((await (await fetch(`http://127.0.0.1:${port}/api/floor`)).json()) as { printers: { name: string }[] }).printers.map(
    p => p.name,
  )

test.beforeAll(async () => {
  port = await freePort()
})
test.afterAll(() => {
  for (const c of running) c.kill('SIGKILL')
  rmSync(folder, { recursive: true, force: true })
})

test('an empty shop: started, refused twice, stopped, killed, and the data kept', async () => {
  test.setTimeout(240_000)
  const first = start('--shop')
  await ready(first)
  expect(await printers()).toEqual([])
  const added = await fetch(`http://127.0.0.1:${port}/api/printers`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'idempotency-key': 'start-spec-1' },
    body: JSON.stringify({
      name: 'One',
      kind: 'open frame',
      note: '',
      heads: [{ name: 'head' }],
      parts: [{ kind: 'bead thermistor, 10-bit reading', head: 0 }, { kind: 'bed heater' }],
    }),
  })
  expect(added.status).toBe(201)
  expect(readFileSync(join(folder, 'address'), 'utf8')).toContain(String(port))

  const second = start('--shop')
  expect(await second.ended).toBe(1)
  expect(second.said()).toContain('running already at')

  first.child.kill('SIGINT')
  expect(await first.ended).toBe(0)
  await expect.poll(left).toBe('')
  expect(await answers()).toBe(false)

  const third = start('--shop')
  await ready(third)
  expect(await printers()).toEqual(['One'])
  third.child.kill('SIGKILL')
  await third.ended
  await expect.poll(left, { timeout: 20_000 }).toBe('')
  await expect.poll(answers).toBe(false)

  const fourth = start('--shop')
  await ready(fourth)
  expect(await printers()).toEqual(['One'])
  fourth.child.kill('SIGTERM')
  expect(await fourth.ended).toBe(0)
})

test('an existing database gets no demo data unless asked; words that mean nothing are said', async () => {
  test.setTimeout(120_000)
  const own = await freePort()
  const child = spawn(process.execPath, ['scripts/start.mjs', '--port', String(own)], {
    env: { ...process.env, DATABASE_URL: servers().shop.url },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  running.push(child)
  let said = ''
  child.stdout!.on('data', d => {
    said += String(d)
  })
  await expect.poll(() => said, { timeout: 60_000 }).toContain('Your shop.')
  expect(
    ((await (await fetch(`http://127.0.0.1:${own}/api/shop`)).json()) as { settings: { demoAnchor: string | null } })
      .settings.demoAnchor,
  ).toBeNull()
  child.kill('SIGINT')
  for (const [options, want] of [
    [['--port', 'x'], 'not a port'],
    [['--shop', '--demo'], 'choose one'],
    [['--shopp'], 'Options:'],
  ] as const) {
    const r = spawnSync(process.execPath, ['scripts/start.mjs', ...options], { encoding: 'utf8' })
    expect(r.status).toBe(1)
    expect(r.stderr).toContain(want)
    expect(r.stderr).not.toContain('at main')
  }
})
