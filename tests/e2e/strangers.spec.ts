/** What a stranger's page, or a name that is pointed here, gets: nothing entered, nothing read, no window to hold. */
import { request } from 'node:http'
import { ASKS, EDIT, ENTRIES, READS } from '../../shared/api'
import { expect, servers, test } from './support'

interface Heard {
  status: number
  headers: Record<string, string | string[] | undefined>
  body: string
}
/** As raw as a browser or an attacker could send it. */
const send = (method: string, path: string, headers: Record<string, string> = {}, body = '') =>
  new Promise<Heard>((done, failed) => {
    const { port } = servers().demo
    const r = request({ host: '127.0.0.1', port, method, path, headers }, answer => {
      let text = ''
      answer
        .setEncoding('utf8')
        .on('data', piece => (text += String(piece)))
        .on('end', () => done({ status: answer.statusCode!, headers: answer.headers, body: text }))
    })
    r.on('error', failed)
    r.end(body)
  })
const filled = (path: string) => path.replace(/\{\w+\}/g, '1')
const WRITES = [
  ...[...Object.keys(ENTRIES), ...Object.keys(ASKS)].map(path => ['POST', path] as const),
  ...Object.keys(EDIT.bodies).map(kind => ['PATCH', EDIT.path.replace('{kind}', kind)] as const),
]
const JSON_BODY = { 'content-type': 'application/json', 'idempotency-key': 'stranger-0001' }

test('a name that is pointed here reads and writes nothing', async () => {
  const headers = { host: 'rebound.example:4750' }
  for (const path of Object.keys(READS)) {
    const { status, body } = await send('GET', filled(path), headers)
    expect([path, status]).toEqual([path, 421])
    expect(body).toContain('IRON_NOZZLE_NAMES=rebound.example')
  }
  for (const [method, path] of WRITES)
    expect([path, (await send(method, filled(path), { ...headers, ...JSON_BODY }, '{}')).status]).toEqual([path, 421])
  expect((await send('GET', '/', headers)).status).toBe(421)
})

test('a foreign page enters nothing, with or without a key, at any door', async () => {
  const foreign = { 'origin': 'http://elsewhere.example', 'sec-fetch-site': 'cross-site' }
  for (const [method, path] of WRITES) {
    const at = async (headers: Record<string, string>) => (await send(method, filled(path), headers, '{}')).status
    expect.soft([path, await at({ ...JSON_BODY, ...foreign })]).toEqual([path, 403])
    expect.soft([path, await at({ ...JSON_BODY, origin: 'null' })]).toEqual([path, 403])
    // what a page may send without asking first: a form, or text
    expect.soft([path, await at({ 'content-type': 'text/plain' })]).toEqual([path, 415])
  }
})

test('every answer says that nobody frames it, reads it from elsewhere or holds its window', async () => {
  const script = /\/_nuxt\/[\w-]+\.js/.exec((await send('GET', '/')).body)![0]
  const answers: [string, Heard][] = [
    ['a page', await send('GET', '/inspect')],
    ['data', await send('GET', '/api/floor')],
    ['a file', await send('GET', '/icon.svg')],
    ['a script', await send('GET', script)],
    ['no route', await send('GET', '/api/nowhere')],
    ['no file', await send('GET', '/_nuxt/nowhere.js')],
    ['a refusal', await send('POST', '/api/runs', { ...JSON_BODY, origin: 'null' }, '{}')],
    ['bad fields', await send('POST', '/api/runs', JSON_BODY, '{}')],
    ['another method', await send('DELETE', '/api/floor', JSON_BODY)],
  ]
  for (const [what, { headers }] of answers) {
    expect.soft([what, headers['cross-origin-opener-policy']]).toEqual([what, 'same-origin'])
    expect.soft([what, headers['cross-origin-resource-policy']]).toEqual([what, 'same-origin'])
    expect.soft([what, headers['content-security-policy']]).toEqual([what, expect.stringContaining('frame-ancestors')])
    expect.soft([what, headers['x-content-type-options']]).toEqual([what, 'nosniff'])
    expect.soft([what, headers['access-control-allow-origin']]).toEqual([what, undefined])
  }
})

test('reading changes nothing: what one has on the balance is not there for the next', async () => {
  const read = async (query: string) =>
    JSON.parse((await send('GET', `/api/balance${query}`)).body) as { grossG: number }
  expect((await read('?spool=1')).grossG).toBeGreaterThan(50)
  expect((await read('')).grossG).toBe(0)
})

test('the app itself works under its policies: a page, its worker and its events', async ({ page }) => {
  await page.goto('/')
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  const said = await page.evaluate(async () => {
    const r = await fetch('/api/stand-in', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ what: 'door', printer: 'Ribble', open: false }),
    })
    return r.status
  })
  expect(said).toBe(200)
})
