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

/** The application that a start command runs, without rights of its own where that is root. */
function application(s: ReturnType<typeof start>): { pid: number; uid: number } {
  const children = readFileSync(`/proc/${s.child.pid}/task/${s.child.pid}/children`, 'utf8').trim().split(' ')
  const pid = Number(children.find(p => readFileSync(`/proc/${p}/cmdline`, 'utf8').includes('server/index.mjs')))
  return { pid, uid: Number(/^Uid:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) }
}

test('application and database are killed, and are back by themselves; a copy is put back while it runs', async () => {
  test.setTimeout(240_000)
  const s = start('--shop')
  await ready(s)
  if (process.getuid!() === 0) expect(application(s).uid).not.toBe(0)
  const { pid } = application(s)
  process.kill(pid, 'SIGKILL')
  await expect.poll(() => s.said(), { timeout: 15_000 }).toContain('the application is back')
  await expect.poll(answers, { timeout: 15_000 }).toBe(true)
  expect(application(s).pid).not.toBe(pid)
  const database = () => Number(readFileSync(join(folder, 'cluster/postmaster.pid'), 'utf8').split('\n')[0])
  const floor = () =>
    fetch(`http://127.0.0.1:${port}/api/floor`).then(
      r => r.ok,
      () => false,
    )
  process.kill(database(), 'SIGKILL')
  await expect.poll(() => s.said(), { timeout: 15_000 }).toContain('the database is back')
  await expect.poll(floor, { timeout: 15_000 }).toBe(true)

  const script = (...args: string[]) =>
    spawnSync(process.execPath, args, {
      encoding: 'utf8',
      env: { ...process.env, IRON_NOZZLE_DATA: folder, DATABASE_URL: '' },
    })
  const copy = join(folder, 'by-hand.dump')
  expect(script('scripts/backup.mjs', copy).stdout).toContain('Put it back with')
  const before = await printers()
  const post = (path: string, key: string, body: object) =>
    fetch(`http://127.0.0.1:${port}${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'idempotency-key': `start-spec-${key}` },
      body: JSON.stringify(body),
    })
  const person = (name: string) => post('/api/people', name, { name, role: 'technician' })
  expect((await person('Afterwards')).status).toBe(201)
  expect(script('scripts/restore.mjs', join(folder, 'none.dump')).status).toBe(1)
  const restored = script('scripts/restore.mjs', copy)
  expect(restored.stdout, restored.stderr).toContain('is the shop now')
  await expect.poll(floor, { timeout: 10_000 }).toBe(true)
  expect(await printers()).toEqual(before)
  const people = async () =>
    ((await (await fetch(`http://127.0.0.1:${port}/api/shop`)).json()) as { people: { name: string }[] }).people
  expect((await people()).map(p => p.name)).not.toContain('Afterwards')
  expect((await person('Again')).status).toBe(201)

  // of an archive nothing that is derived is read: what is forecast is worked out afresh, also while it runs
  const type = await post('/api/nozzle-types', 'a-type', {
    ...{ name: 'hardened steel 0.4', material: 'hardened steel', nominalBoreMm: 0.4, lengthMm: 12.5, coneDeg: 60 },
    ...{ tipFlatMm: 1, landMm: 0.6, inletMm: 2, basis: 'practice' },
  })
  const { id: typeId } = (await type.json()) as { id: number }
  const receivedAt = new Date().toISOString()
  expect((await post('/api/nozzles', 'nozzles', { tag: 'N-001', typeId, receivedAt, howMany: 3 })).status).toBe(201)
  const nozzles = async () => {
    const list = await fetch(`http://127.0.0.1:${port}/api/nozzles`)
    return ((await list.json()) as { nozzles: { tag: string; stale: boolean; pastChance: number }[] }).nozzles
  }
  const forecasts = await nozzles()
  expect(forecasts.map(n => n.stale)).toEqual([false, false, false])
  const archive = join(folder, 'by-hand.zip')
  expect(script('scripts/archive.mjs', archive).stdout).toContain('Read it with')
  expect(script('scripts/restore.mjs', archive).stdout).toContain('is the shop now')
  await expect.poll(floor, { timeout: 10_000 }).toBe(true)
  await expect.poll(nozzles, { timeout: 15_000 }).toEqual(forecasts)
  s.child.kill('SIGTERM')
  expect(await s.ended).toBe(0)
  await expect.poll(left).toBe('')
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
