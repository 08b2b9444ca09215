/**
 * Two thousand malformed requests at every route file, from a fixed seed, with bodies made from the schemas the API
 * describes itself with. None may be answered by a fault of the server, each refusal names what is wrong, and
 * afterwards every question of every screen is still answered.
 */
import { written, type Components } from './openapi'
import { randomBytes } from 'node:crypto'
import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { mulberry32 } from '#core/numeric'
import { serve, standIns } from './global-setup'
import { ownDatabase } from './support'

const SEED = 8
const REQUESTS = 2000
const STREAMS = ['/api/events']

interface Schema {
  type?: string | string[]
  anyOf?: Schema[]
  oneOf?: Schema[]
  const?: unknown
  enum?: unknown[]
  properties?: Record<string, Schema>
  required?: string[]
  additionalProperties?: Schema | boolean
  items?: Schema
  minItems?: number
  maxItems?: number
  minimum?: number
  maximum?: number
  format?: string
  minLength?: number
  $ref?: string
}
interface Operation {
  requestBody?: { content: { 'application/json': { schema: Schema } } }
}
type Paths = Record<string, Record<string, Operation>>

const random = mulberry32(SEED)
const below = (n: number) => Math.floor(random() * n)
const one = <T>(list: readonly T[]): T => list[below(list.length)]!
const chance = (p: number) => random() < p

/** Values that have broken something somewhere before. */
const NASTY: readonly (() => unknown)[] = [
  () => '\u0000',
  () => 'S-07\u0000',
  () => '\uD800',
  () => '\uDFFFx',
  () => '',
  () => ' ',
  () => 'x'.repeat(5000),
  () => '%E0%A4%A',
  () => "'; drop table runs; --",
  () => '__proto__',
  () => 'ÅÄÖ🙂',
  () => -1,
  () => 0,
  () => -0.0001,
  () => 1e308,
  () => 1e-308,
  () => 2 ** 31,
  () => 2 ** 53,
  () => 0.1,
  () => 1e12,
  () => null,
  () => true,
  () => [],
  () => ({}),
  () => [[]],
  () => 5,
  () => '0000-01-01T00:00:00Z',
  () => '0001-01-01T00:00:00Z',
  () => '9999-12-31T23:59:59Z',
  () => '2026-02-30T10:00:00Z',
  () => '2026-11-01T10:00:00+99:99',
  () => '1970-01-01T00:00:00Z',
]

/** Identifiers that exist, by the field that names them; '' for any other. */
type Known = Record<string, readonly number[]>

/** A value that the schema would mostly take. */
function valueOf(schema: Schema, name: string, known: Known, depth = 0): unknown {
  if (schema.const !== undefined) return schema.const
  if (schema.enum) return one(schema.enum)
  const many = schema.anyOf ?? schema.oneOf
  if (many) return valueOf(one(many), name, known, depth)
  switch (Array.isArray(schema.type) ? one(schema.type) : schema.type) {
    case 'null':
      return null
    case 'boolean':
      return chance(0.5)
    case 'integer':
    case 'number': {
      if (known[name] || /Id$/.test(name)) return one(known[name] ?? known['']!)
      const low = Math.max(schema.minimum ?? 0, -1000),
        high = Math.min(schema.maximum ?? 100, 1000)
      const v = chance(0.2) ? one([low, high]) : low + (high - low) * random()
      return schema.type === 'integer' ? Math.round(v) : v
    }
    case 'string':
      if (schema.format === 'date-time') return new Date(Date.now() - random() * 90 * 86_400_000).toISOString()
      if (/sha256/i.test(name)) return 'a'.repeat(64)
      return one(['N-014', 'S-07', 'PA6-CF20', 'a note', 'Ribble', `fuzz ${below(1e6)}`])
    case 'array': {
      const n = Math.min(schema.maxItems ?? 3, (schema.minItems ?? 0) + below(3))
      return Array.from({ length: depth > 6 ? 0 : n }, () => valueOf(schema.items ?? {}, name, known, depth + 1))
    }
    case 'object': {
      const out: Record<string, unknown> = {}
      for (const [key, inner] of Object.entries(schema.properties ?? {}))
        if (schema.required?.includes(key) || chance(0.6)) out[key] = valueOf(inner, key, known, depth + 1)
      return out
    }
    default:
      return one(NASTY)()
  }
}

/** Breaks one place of a body: another value, a missing field, a field too many. */
function broken(body: unknown): unknown {
  if (typeof body !== 'object' || body === null || chance(0.02)) return one(NASTY)()
  const copy = (Array.isArray(body) ? [...(body as unknown[])] : { ...body }) as Record<string, unknown>
  const keys = Object.keys(copy)
  if (keys.length === 0 || chance(0.1))
    return Array.isArray(copy)
      ? [...(copy as unknown[]), one(NASTY)()]
      : { ...copy, [chance(0.3) ? 'a\u0000b' : 'unknown']: one(NASTY)() }
  const key = one(keys)
  if (chance(0.5) && typeof copy[key] === 'object' && copy[key] !== null) copy[key] = broken(copy[key])
  else if (chance(0.15) && !Array.isArray(copy)) Reflect.deleteProperty(copy, key)
  else copy[key] = one(NASTY)()
  return copy
}

/** Bodies that are no JSON, or more than anyone would send. */
const RAW: readonly (() => string | Buffer)[] = [
  () => '',
  () => '{',
  () => 'null',
  () => '[]',
  () => '"text"',
  () => '12',
  () => Buffer.from([0xff, 0xfe, 0x7b]),
  () => `{"note":${'['.repeat(50_000)}${']'.repeat(50_000)}}`,
  () => `${'{"a":'.repeat(50_000)}1${'}'.repeat(50_000)}`,
  () => '{"__proto__":{"x":1}}',
  () => JSON.stringify({ note: 'x'.repeat(4_200_000) }),
  () => '{"note":1e999}',
]
const SEGMENTS = [
  '%00',
  '%E0%A4%A',
  '%ud800',
  '%ED%A0%80',
  'N-014%00',
  '..%2F..%2Fetc',
  '-1',
  '0',
  '1e3',
  '2147483648',
  '9'.repeat(400),
  'NaN',
  '%20',
  'ÅÄÖ',
  '%F0%9F%99%82',
  'x'.repeat(3000),
  'toString',
  '__proto__',
]
const CURSORS = [
  '2026-99-99~1',
  '2026-11-01T10:00:00Z~99999999999',
  '~',
  '0000-01-01T00:00:00.000Z~1',
  '2026-11-01T10:00:00.000Z~-1',
  '\u0000',
  '%E0%A4%A',
  '2026-11-01T10:00:00.000Z~1~2',
]

/** Every route file as the method and address it answers to: `/api/jobs/{id}`, `get`. */
function routeFiles(
  folder = join(import.meta.dirname, '../../server/api'),
  at = '/api',
): { method: string; path: string }[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap(f => {
    const segment = (name: string) => name.replace(/^\[(\w+)\]$/, '{$1}')
    if (f.isDirectory()) return routeFiles(join(folder, f.name), `${at}/${segment(f.name)}`)
    const [, name, method] = /^(.+)\.(get|post|patch)\.ts$/.exec(f.name) ?? []
    return name && method ? [{ method, path: name === 'index' ? at : `${at}/${segment(name)}` }] : []
  })
}

test('two thousand malformed requests: no fault of the server, and every screen is answered afterwards', async ({
  request,
}) => {
  test.setTimeout(300_000)
  const sim = await standIns()
  const port = 20_000 + below(12_000)
  const child = await serve(await ownDatabase('fuzz'), port, sim.env)
  try {
    const base = `http://127.0.0.1:${port}`
    const ask = async <T>(path: string) => (await (await request.get(base + path)).json()) as T
    const { paths } = written(await ask<{ paths: Paths; components: Components }>('/api/openapi'))
    // what the API says of itself is all there is, kind by kind where the address has a kind
    const targets = routeFiles().flatMap(({ method, path }) => {
      const as = new RegExp(`^${path.replaceAll(/[{}]/g, '\\$&').replace('\\{kind\\}', '(?:\\{kind\\}|[\\w-]+)')}$`)
      const described = Object.keys(paths).filter(p => as.test(p) && paths[p]![method])
      expect(described, `${method} ${path} is described`).not.toEqual([])
      return described.map(template => ({ method, template }))
    })
    expect(targets.length).toBeGreaterThan(40)

    const shop =
      await ask<
        Record<
          'printers' | 'nozzles' | 'spools' | 'materials' | 'types',
          { id: number; tag: string; heads?: { id: number }[] }[]
        >
      >('/api/shop')
    const ids = (of: { id: number }[]) => of.map(x => x.id)
    const known: Known = {
      '': Array.from({ length: 40 }, (_, i) => i + 1),
      'printerId': ids(shop.printers),
      'headId': ids(shop.printers.flatMap(p => p.heads!)),
      'nozzleId': ids(shop.nozzles),
      'spoolId': ids(shop.spools),
      'materialId': ids(shop.materials),
      'typeId': ids(shop.types),
      'dryerId': [1, 2, 3],
      'fromMaterialId': ids(shop.materials),
      'toMaterialId': ids(shop.materials),
      'version': [1],
    }
    // a whole screen takes a hundred times as long as a refusal and has only its query to go wrong: every sixth round
    const whole = (t: (typeof targets)[number]) => t.method === 'get' && !t.template.includes('{')
    const asked = Array.from({ length: REQUESTS }, (_, round) => targets.filter(t => !whole(t) || round % 6 === 0))
      .flat()
      .slice(0, REQUESTS)
    const faults: string[] = []
    const statuses = new Map<number, number>()
    for (let i = 0; i < REQUESTS; i++) {
      const { method, template } = asked[i]!
      let path = template.replaceAll(/\{\w+\}/g, p => {
        if (chance(0.5)) return one(SEGMENTS)
        return p === '{tag}' ? one(['N-014', 'S-07']) : String(1 + below(12))
      })
      if (method === 'get' && chance(0.6))
        path += `?${one(['after', 'limit', 'spool', 'x'])}=${one([...CURSORS, ...SEGMENTS])}`
      let body: string | Buffer | undefined
      if (method !== 'get') {
        const schema = paths[template]![method]!.requestBody!.content['application/json'].schema
        const good = valueOf(schema, '', known)
        body = chance(0.08) ? one(RAW)() : JSON.stringify(chance(0.7) ? broken(good) : good)
      }
      const key = chance(0.03) ? one(['', 'short', 'x'.repeat(200)]) : `fuzz-${SEED}-${i}`
      const response = await fetch(base + path, {
        method: method.toUpperCase(),
        body: body as BodyInit | undefined,
        headers: body === undefined ? {} : { 'content-type': 'application/json', 'idempotency-key': key },
        signal: AbortSignal.timeout(20_000),
      }).catch((e: unknown) => {
        throw new Error(`${i} ${method} ${path} ${String(body).slice(0, 300)}: ${String(e)}`)
      })
      statuses.set(response.status, (statuses.get(response.status) ?? 0) + 1)
      if (STREAMS.some(s => path.startsWith(s))) {
        await response.body?.cancel()
        continue
      }
      const text = await response.text()
      const is =
        `${i} ${method} ${path.slice(0, 80)} ${String(body).slice(0, 300)} → ${response.status} ` +
        `${text.slice(0, 200)}`
      if (response.status >= 500) faults.push(is)
      if (response.status === 422 || response.status === 409) {
        const problem = JSON.parse(text) as { title?: string; errors?: { field: string; message: string }[] }
        if (!problem.title || problem.errors?.some(e => e.message === '')) faults.push(`says nothing: ${is}`)
      }
    }
    expect(faults).toEqual([])
    expect(statuses.get(201), 'entries that are in order are taken').toBeGreaterThan(20)
    expect(statuses.get(422), 'others are refused').toBeGreaterThan(500)

    const screens = routeFiles()
      .filter(r => r.method === 'get' && !r.path.includes('{') && !STREAMS.includes(r.path))
      .map(r => r.path)
    const [{ nozzles }, { spools }, jobs, { checks }] = await Promise.all([
      ask<{ nozzles: { tag: string }[] }>('/api/nozzles'),
      ask<{ spools: { tag: string }[] }>('/api/shop'),
      ask<{ id: number }[]>('/api/jobs'),
      ask<{ checks: { id: number }[] }>('/api/prepare'),
    ])
    const pages = [
      ...nozzles.map(n => `/api/nozzles/${encodeURIComponent(n.tag)}`),
      ...spools.map(s => `/api/spools/${encodeURIComponent(s.tag)}`),
      ...jobs.map(j => `/api/jobs/${j.id}`),
      ...checks.map(c => `/api/prechecks/${c.id}`),
    ]
    expect(pages.length).toBeGreaterThan(60)
    const broke: string[] = []
    for (const path of [...screens, ...pages]) {
      const answer = await request.get(base + path)
      if (answer.status() !== 200) broke.push(`${path} ${answer.status()} ${(await answer.text()).slice(0, 200)}`)
    }
    expect(broke).toEqual([])
    const unknown = await request.get(`${base}/api/nothing/here?x=${randomBytes(2).toString('hex')}`)
    expect([unknown.status(), unknown.headers()['content-type']]).toEqual([404, 'application/problem+json'])
  } finally {
    child.kill('SIGKILL')
    sim.child.kill('SIGTERM')
  }
})
