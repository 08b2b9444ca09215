/** Bad input, a server that goes away, and files that are no job files. */
import { written, type Components } from './openapi'
import { spawn, type ChildProcess } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { serve } from './global-setup'
import { expect, servers, test } from './support'

const file = (name: string, buffer: Buffer) => ({ name, mimeType: 'application/octet-stream', buffer })

test('files that are no job files each say why', async ({ page }) => {
  await page.goto('/run')
  const drop = page.getByLabel('Job files')
  await drop.setInputFiles(
    file('picture.gcode', Buffer.concat([Buffer.from('G1 X1\n'), Buffer.from([0, 1, 2]), randomBytes(2000)])),
  )
  await expect(page.getByText('This is not a text file, so it is no G-code.')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Save the run' })).toHaveCount(0)
  await drop.setInputFiles(file('empty.gcode', Buffer.alloc(0)))
  await expect(page.getByText('This file is empty.')).toBeVisible()
  await drop.setInputFiles(file('travel.gcode', Buffer.from('G0 X1 F600\nG0 X9\n')))
  await expect(page.getByText('Nothing is extruded in this file')).toBeVisible()
  await drop.setInputFiles(file('cut.gcode', Buffer.from('M83\nG1 X10 E50 F600\nG1 X20 E5,\nhello\nG1 X1 E1 F')))
  await expect(page.getByText('3 lines have problems')).toBeVisible()
  await expect(
    page.getByText('Line 3: a number cannot be read, or is beyond 10¹²; the line was left out'),
  ).toBeVisible()
  await expect(page.getByText('Line 5: a number cannot be read')).toBeVisible()
  await drop.setInputFiles(
    file('two.gcode', Buffer.from('M83\nG90\nG1 X1 E1 F60\nG91\nG1 Z1\nG90\nG1 X2 E1\nG1 X3 E1\n')),
  )
  await expect(page.getByText('its E words can be read in two ways')).toBeVisible()
  await page.getByRole('button', { name: 'Use the other reading' }).click()
  await expect(page.getByText('In use: E following G90 / G91.')).toBeVisible()
})

test('a file of 300 MB shows progress, can be cancelled, and leaves the page responsive', async ({ page }) => {
  await page.goto('/run')
  await expect(page.getByLabel('Job files')).toBeAttached()
  // made in the page, so that nothing large crosses the wire: 300 MB of moves
  await page.evaluate(() => {
    const line = Array.from(
      { length: 4000 },
      (_, i) => `G1 X${((i * 7919) % 100000) / 1000} Y${((i * 104729) % 100000) / 1000} E0.0${(i % 90) + 10}\n`,
    ).join('')
    const parts = Array.from({ length: Math.ceil(300e6 / line.length) }, () => line)
    const f = new File(['M83\nG1 F1800\n', ...parts], 'large.gcode')
    const data = new DataTransfer()
    data.items.add(f)
    const input = document.querySelector<HTMLInputElement>('input[type=file]')!
    input.files = data.files
    input.dispatchEvent(new Event('change', { bubbles: true }))
  })
  await expect(page.getByRole('progressbar', { name: 'Reading large.gcode' })).toBeVisible()
  await page.getByRole('button', { name: 'Log by hand instead' }).click()
  await page.getByLabel('Job', { exact: true }).fill('typed while reading')
  // it was typed while the file was still being read
  await expect(page.getByRole('progressbar', { name: 'Reading large.gcode' })).toBeVisible()
  await page.getByRole('button', { name: 'Cancel' }).click()
  await expect(page.getByText('cancelled')).toBeVisible()
  await expect(page.getByLabel('Job', { exact: true })).toHaveValue('typed while reading')
  await page.getByRole('button', { name: 'Read again' }).click()
  await page.getByRole('button', { name: 'large.gcode', exact: true }).click()
  await expect(page.getByText(/m of filament, at least/)).toBeVisible({ timeout: 90_000 })
})

test('nonsense stays typed and is answered at its field', async ({ page }) => {
  await page.goto('/inspect/N-014?gauge=1')
  await page.getByLabel('Goes, mm').fill('abc')
  await page.getByLabel('Does not go, mm').fill('0.43')
  await page.getByRole('button', { name: 'Save the gauge' }).click()
  await expect(page.getByText('Not a number; for example 0.43 or 0,43')).toBeVisible()
  await page.getByLabel('Goes, mm').fill('0.44')
  await page.getByRole('button', { name: 'Save the gauge' }).click()
  await expect(page.getByText('The go pin (0.44) must be smaller than the no-go pin (0.43)')).toBeVisible()
  await page.getByLabel('Goes, mm').fill('0.42')
  await page.getByLabel('When').fill('2099-01-01T10:00')
  await page.getByRole('button', { name: 'Save the gauge' }).click()
  await expect(page.getByText('This is in the future; enter when it happened')).toBeVisible()
  await expect(page.getByLabel('Goes, mm')).toHaveValue('0.42')
  await page.goto('/inspect/N-999')
  await expect(page.getByText('Nozzle N-999 is not known')).toBeVisible()
})

test('what is typed outlasts a save made elsewhere, and the news of it arrives', async ({ page, request }) => {
  await page.goto('/inspect/N-020')
  await page.getByRole('button', { name: 'Retire it' }).click()
  await page.getByRole('dialog').getByLabel('Reason').fill('half a sentence')
  const { nozzles } = (await (await request.get('/api/nozzles')).json()) as { nozzles: { id: number; tag: string }[] }
  const sent = await request.post('/api/gauges', {
    data: {
      nozzleId: nozzles.find(n => n.tag === 'N-020')!.id,
      occurredAt: new Date().toISOString(),
      tipMm: 12.31,
      confirmed: ['longer-tip'],
    },
    headers: { 'idempotency-key': randomBytes(8).toString('hex') },
  })
  expect(sent.status()).toBe(201)
  await expect(page.getByText('tip 12.31 mm')).toBeAttached()
  await expect(page.getByRole('dialog').getByLabel('Reason')).toHaveValue('half a sentence')
})

test('the API is described from its own schemas', async ({ request }) => {
  const described = (await (await request.get('/api/openapi')).json()) as {
    openapi: string
    components: Components
    paths: Record<string, { post?: { requestBody: { content: Record<string, { schema: { properties: object } }> } } }>
  }
  const api = written(described)
  expect(api.openapi).toBe('3.1.0')
  expect(JSON.stringify(api)).not.toContain('$ref')
  for (const path of ['/api/runs', '/api/gauges', '/api/fittings', '/api/strikes', '/api/spools'])
    expect(
      Object.keys(api.paths[path]!.post!.requestBody.content['application/json']!.schema.properties).length,
      path,
    ).toBeGreaterThan(2)
  for (const path of Object.keys(api.paths).filter(p => api.paths[p]!.post))
    expect(
      (await request.post(path, { data: {}, headers: { 'idempotency-key': randomBytes(8).toString('hex') } })).status(),
      path,
    ).toBe(422)
})

test('the API answers with problem+json and the field', async ({ request }) => {
  const send = (
    data: unknown,
    headers: Record<string, string> = { 'idempotency-key': randomBytes(8).toString('hex') },
  ) => request.post('/api/gauges', { data: data as object, headers })
  const bad = await send({ nozzleId: 'x' })
  expect(bad.status()).toBe(422)
  expect(bad.headers()['content-type']).toContain('application/problem+json')
  expect(((await bad.json()) as { errors: { field: string }[] }).errors.map(e => e.field)).toContain('nozzleId')
  expect((await send({}, {})).status()).toBe(400)
  expect(
    (
      await request.post('/api/gauges', {
        data: Buffer.from('{'),
        headers: { 'idempotency-key': 'abcdefgh1', 'content-type': 'application/json' },
      })
    ).status(),
  ).toBe(400)
  expect((await request.get('/api/nozzles/none')).status()).toBe(404)
  expect((await request.get('/api/runs?limit=0')).status()).toBe(422)
  expect((await request.delete('/api/runs')).ok()).toBe(false)
  const page = await request.get('/')
  expect(page.headers()['content-security-policy']).toContain("default-src 'self'")
  expect(page.headers()['access-control-allow-origin']).toBeUndefined()
})

test('server away while saving: kept, survives a reload, arrives exactly once', async ({ page }) => {
  const own = await ownServer()
  await page.goto(`http://127.0.0.1:${own.port}/inspect/N-033?gauge=1`)
  await expect(page.getByLabel('Goes, mm')).toBeVisible()
  await page.getByLabel('Goes, mm').fill('0.40')
  await page.getByLabel('Does not go, mm').fill('0.41')
  await page.getByLabel('Note').fill('kept through it all')
  own.child.kill('SIGKILL')
  await page.getByRole('button', { name: 'Save the gauge' }).click()
  await expect(
    page.getByRole('status').filter({ hasText: 'Kept here; it is sent when the server answers.' }),
  ).toBeVisible()
  await expect(page.getByRole('button', { name: /1 waiting to be sent/ })).toBeVisible()
  own.child = await serve(servers().demo.url, own.port)
  await page.reload()
  await expect(page.getByRole('button', { name: 'all entries saved' })).toBeVisible({ timeout: 45_000 })
  await page.reload() // nothing is left that could be sent again
  await expect(page.getByText('kept through it all')).toHaveCount(1)
  own.child.kill('SIGKILL')
})

test('a queued entry that is questioned stays, with its reason, until a person decides', async ({ page }) => {
  const own = await ownServer()
  await page.goto(`http://127.0.0.1:${own.port}/inspect/N-032?gauge=1`)
  await page.getByLabel('Goes, mm').fill('0.31')
  await page.getByLabel('Does not go, mm').fill('0.32')
  own.child.kill('SIGKILL')
  await page.getByRole('button', { name: 'Save the gauge' }).click()
  await expect(page.getByRole('button', { name: /1 waiting to be sent/ })).toBeVisible()
  own.child = await serve(servers().demo.url, own.port)
  await page.getByRole('button', { name: /1 entry needs you/ }).click({ timeout: 45_000 })
  await expect(page.getByText(/A bore does not shrink/)).toBeVisible()
  await page.getByRole('button', { name: 'Edit' }).click()
  await expect(page.getByLabel('Goes, mm')).toHaveValue('0.31')
  await page.getByLabel('Goes, mm').fill('0.40')
  await page.getByLabel('Does not go, mm').fill('0.41')
  await page.getByRole('button', { name: 'Save the gauge' }).click()
  await expect(page.getByRole('button', { name: 'all entries saved' })).toBeVisible()
  await expect(page.getByText('0.4 goes, 0.41 does not')).toHaveCount(1)
  own.child.kill('SIGKILL')
})

test(
  'server away while a change is applied: kept, and it arrives once; nonsense at the doors of Equip is ' +
    'answered at its field',
  async ({ page, request }) => {
    const own = await ownServer()
    await page.goto(`http://127.0.0.1:${own.port}/equip/stack/6`)
    await page.getByRole('button', { name: 'Replace bed wiring' }).click()
    await page.getByLabel('By', { exact: true }).selectOption('silicone bed wiring')
    await expect(
      page
        .getByRole('dialog')
        .getByText(/licensed electrician/)
        .first(),
    ).toBeVisible()
    own.child.kill('SIGKILL')
    await page.getByRole('dialog').getByRole('button', { name: 'Save' }).click()
    await expect(page.getByRole('button', { name: /1 waiting to be sent/ })).toBeVisible()
    own.child = await serve(servers().demo.url, own.port)
    await page.reload()
    await expect(page.getByRole('button', { name: 'all entries saved' })).toBeVisible({ timeout: 45_000 })
    await page.reload()
    await expect(page.getByRole('paragraph').filter({ hasText: /^bed wiring replaced$/ })).toHaveCount(1)
    await expect(page.getByRole('cell', { name: 'silicone bed wiring', exact: true })).toHaveCount(1)
    own.child.kill('SIGKILL')

    const send = async (path: string, data: object) =>
      (await (
        await request.post(path, { data, headers: { 'idempotency-key': randomBytes(8).toString('hex') } })
      ).json()) as { errors?: { field: string; message: string }[]; title: string }
    expect(
      (
        await send('/api/printers', {
          name: 'X',
          kind: 'x',
          heads: [{ name: 'head' }],
          parts: [{ kind: 'bed heater', head: null }],
        })
      ).errors,
    ).toEqual([{ field: 'heads.0', message: 'head has no temperature sensor: nothing can be said of its temperature' }])
    expect((await send('/api/parts', { kind: 'warp drive' })).errors![0]).toMatchObject({
      field: 'kind',
      message: 'There is no such part kind; the catalogue lists them',
    })
    expect((await send('/api/parts', { kind: 'belts', limitC: 5 })).errors![0]!.field).toBe('limitC')
    expect(
      (await send('/api/changes', { printerId: 1, text: 'x', occurredAt: new Date().toISOString() })).errors!.map(
        e => e.field,
      ),
    ).toEqual(['text', 'remove'])
    expect(
      (
        await send('/api/changes', {
          printerId: 999,
          text: 'something',
          occurredAt: new Date().toISOString(),
          add: [{ kind: 'belts' }],
        })
      ).title,
    ).toBe('This printer is not known')
    expect(
      (await send('/api/material-values', { materialId: 1, key: 'meltC', value: 5000, basis: 'practice' })).errors![0],
    ).toMatchObject({ field: 'value', message: 'At most 500 °C' })
    expect(
      (
        await send('/api/practice-sets', { materialId: 1, set: { name: 'x', chamber: 'needs', basis: 'practice' } })
      ).errors!.map(e => e.field),
    ).toEqual(['set.chamberMinC', 'set.dryMinC'])
  },
)

test('database away: said plainly, nothing lost', async ({ page, request }) => {
  const port = 20_000 + Math.floor(Math.random() * 12_000)
  const child = spawn(process.execPath, ['.output/server/index.mjs'], {
    env: {
      ...process.env,
      DATABASE_URL: 'postgres://nobody:x@127.0.0.1:9/none',
      PORT: String(port),
      HOST: '127.0.0.1',
      NODE_ENV: 'production',
    },
    stdio: 'ignore',
  })
  try {
    await expect
      .poll(async () => (await request.get(`http://127.0.0.1:${port}/api/health`).catch(() => null))?.status(), {
        timeout: 20_000,
      })
      .toBe(503)
    expect(
      ((await (await request.get(`http://127.0.0.1:${port}/api/floor`)).json()) as { title: string }).title,
    ).toContain('The database does not answer')
    await page.goto(`http://127.0.0.1:${port}/`)
    await expect(page.getByText(/does not answer/).first()).toBeVisible()
  } finally {
    child.kill('SIGKILL')
  }
})

/** A second application on the demo database that a test may kill. */
async function ownServer(): Promise<{ port: number; child: ChildProcess }> {
  // below the ports that the system gives to clients, which could take it while the server is away
  const port = 20_000 + Math.floor(Math.random() * 12_000)
  return { port, child: await serve(servers().demo.url, port) }
}
