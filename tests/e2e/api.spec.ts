/* eslint-disable max-lines -- one shop, asked through every door */
/**
 * Every route once: what it answers is what the one list of routes (shared/api.ts) says, every time in it is ISO in
 * UTC, and every route file is in the list and in the description that the API gives of itself.
 */
import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import type { z } from 'zod'
import { expect, test } from '@playwright/test'
import {
  ASKS,
  EDIT,
  ENTRIES,
  FILES,
  READS,
  STREAMS,
  WHO,
  type AskPath,
  type EntryPath,
  type ReadPath,
} from '#shared/api'
import { pathOf } from '#shared/paths'
import type { Equip } from '#shared/answers/bench'
import type { LevelPage } from '#shared/answers/level'
import type { DueList } from '#shared/answers/due'
import type { PinLine } from '#shared/answers/pins'
import type { Upkeep } from '#shared/answers/upkeep'
import type { SetupLine } from '#shared/answers/pictures'
import type { Verify } from '#shared/answers/sensors'
import type { Prepare, WarmUpLine } from '#shared/answers/prepare'
import type { Shop } from '#shared/answers/shop'
import type { EditableKind } from '#shared/entries/edits'
import { freePort } from '../../scripts/lib/postgres.mjs'
import { serve, standIns } from './global-setup'
import { NewsWatch } from './news-watch'
import { ownDatabase } from './support'

const PORT = await freePort()
const url = (path: string) => `http://127.0.0.1:${PORT}${path}`
let children: { kill: (signal: 'SIGTERM') => unknown }[] = []
test.beforeAll(async () => {
  const sim = await standIns()
  children = [sim.child, await serve(await ownDatabase('api'), PORT, sim.env)]
})
test.afterAll(() => {
  for (const c of children) c.kill('SIGTERM')
})

const read = async <T>(path: string) => (await (await fetch(url(path))).json()) as T
let sent = 0
async function send(method: 'POST' | 'PATCH', path: string, body: unknown) {
  const response = await fetch(url(path), {
    method,
    headers: {
      'content-type': 'application/json',
      'idempotency-key': `api-${String(++sent).padStart(12, '0')}`,
    },
    body: JSON.stringify(body),
  })
  return { status: response.status, answer: (await response.json()) as Record<string, unknown> }
}

/** Texts that look like a time but are not the one form of it. */
function otherTimes(v: unknown): string[] {
  if (typeof v === 'string')
    return /^\d{4}-\d\d-\d\d[T ]\d\d:\d\d[^~]*$/.test(v) && !/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{3}Z$/.test(v)
      ? [v]
      : []
  return typeof v === 'object' && v !== null ? Object.values(v).flatMap(otherTimes) : []
}
function holds(path: string, schema: z.ZodType, answer: unknown): void {
  const parsed = schema.safeParse(answer)
  expect.soft(parsed.success ? [] : parsed.error.issues.slice(0, 5), path).toEqual([])
  expect.soft(otherTimes(answer), path).toEqual([])
}

const ago = (hours: number) => new Date(Date.now() - hours * 3_600_000).toISOString()
const scan = {
  filamentDiameterMm: 1.75,
  dialect: 'eIndependent',
  tools: [{ index: 0, extrudedMm: 100, offPartMm: 0, printingMm: 100 }],
  maxSetpointC: { tools: {}, bed: null, chamber: null },
  totalExtrudedMm: 100,
  profile: null,
}

/** What later entries rest on. */
const made = { run: 0, bench: 0, case: 0, drying: 0, study: 0, reference: 0, procedure: 0 }

/** One good body for each entry, made of what the demo shop has; in this order, as some rest on those before. */
function bodies(
  shop: Shop,
  equip: Equip,
  prepare: Prepare,
  warmUps: WarmUpLine[],
  upkeep: Upkeep,
  due: DueList,
): Record<EntryPath, () => Record<string, unknown>> {
  const printer = shop.printers.find(p => p.heads[0]!.nozzleId !== null)!
  const head = printer.heads[0]!
  const benched = shop.printers.find(p => p.name === 'Ribble')!
  const spool = prepare.spools.find(s => s.place === 'room' && s.drying === null && s.water !== null)!
  const row = shop.spools.find(s => s.id === spool.id)!
  const shelf = shop.nozzles.filter(n => n.place === null && !n.retired)
  const [spare, next] = [shelf[0]!, shelf[1]!]
  const dryer = prepare.dryers.find(d => !d.withdrawn && d.kind !== 'bed under a cover')!
  const material = shop.materials[0]!
  const noSuch = equip.materials.find(m => !m.values.some(v => v.key === 'meltC'))!
  const job = { name: 'api.gcode', contentSha256: 'c'.repeat(64), sizeBytes: 10, scan }
  const confirmed = ['attended', 'over-dry', 'soaking', 'not-fitted', 'not-on-head', 'more-than-left', 'past-limit']
  return {
    '/api/intake': () => ({
      table: 'spools',
      lines: [{ line: 1, values: { tag: 'S-api-table', material: material.name, gross: 900, tare: 200 } }],
    }),
    '/api/beds': () => ({
      printerId: shop.printers.at(-1)!.id,
      widthMm: 300,
      depthMm: 300,
      screws: [],
      pitchMm: 0.7,
      clockwise: 'lowers',
      basis: 'practice',
    }),
    '/api/snoozes': () => ({
      key: due.items.find(i => i.mark !== 'stop' && i.on === null)!.key,
      until: ago(-2),
      reason: 'api',
      occurredAt: ago(0.01),
    }),
    '/api/feeds': () => ({ name: 'api', tokenSha256: 'a'.repeat(64) }),
    '/api/upkeep-tasks': () => ({
      printerId: printer.id,
      kind: 'other',
      name: 'api',
      everyDays: 30,
      basis: 'practice',
    }),
    '/api/upkeep-plans': () => ({ printerId: shop.printers.at(-1)!.id }),
    '/api/upkeep-entries': () => ({
      taskId: upkeep.printers[0]!.tasks.find(t => t.guard === null)!.id,
      found: 'in order',
      occurredAt: ago(0.01),
    }),
    '/api/pins': () => ({ mark: 'P-api', nominalMm: 0.5 }),
    '/api/pin-certificates': () => ({ pinId: 1, sizeMm: 0.4004, expandedUm: 1, occurredAt: ago(0.01) }),
    '/api/stock-items': () => ({ kind: 'belt', name: 'api', minimum: 2, price: 3, pricedOn: '2026-01-31' }),
    '/api/stock-moves': () => ({ itemId: 1, kind: 'counted', quantity: 3, occurredAt: ago(0.01) }),
    '/api/levels': () => ({
      printerId: shop.printers.at(-1)!.id,
      bedC: 60,
      measured: {
        how: 'mesh',
        rows: [
          [0.1, 0.2],
          [0.1, 0.2],
        ],
        leftMm: 20,
        rightMm: 280,
        frontMm: 20,
        backMm: 280,
        firstRow: 'front',
      },
      occurredAt: ago(0.01),
    }),
    '/api/z-records': () => ({
      headId: head.id,
      why: 'feeler',
      zMm: -1.2,
      way: 'larger is higher',
      occurredAt: ago(0.01),
    }),
    '/api/hotends': () => ({ add: [{ kind: 'type K thermocouple' }], occurredAt: ago(0.1) }),
    '/api/assemblies': () => ({
      hotendId: equip.hotends[0]!.id,
      text: 'api',
      add: [{ kind: 'other hotend part' }],
      occurredAt: ago(0.05),
    }),
    '/api/runs': () => ({
      printerId: printer.id,
      name: 'api',
      endedAt: ago(0.1),
      outcome: 'finished',
      tools: [
        {
          tool: 0,
          headId: head.id,
          nozzleId: head.nozzleId,
          materialId: material.id,
          amount: { kind: 'grams', grams: 1 },
        },
      ],
      confirmed,
    }),
    '/api/gauges': () => ({ nozzleId: head.nozzleId, occurredAt: ago(0.1), shape: ['oval'] }),
    '/api/setups': () => ({ name: 'Magnifier' }),
    '/api/references': () => ({
      name: 'A probe of the API',
      is: { kind: 'probe', readsIn: '°C', certificateUC: 0.3, meter: 0.1 },
    }),
    '/api/sensor-checks': () => ({
      printerId: printer.id,
      zone: 'hotend',
      headId: head.id,
      referenceId: made.reference,
      placement: 'in the block',
      points: [{ shownC: 240, reading: 241 }],
      allowed: { by: 'data sheet', plusMinusC: 5 },
      occurredAt: ago(0.1),
      confirmed,
    }),
    '/api/surveys': () => ({
      printerId: shop.printers.find(p => p.name === 'Ribble')!.id,
      state: { opening: 'shut', fan: true, gapMm: 0 },
      size: { widthMm: 350, depthMm: 350, heightMm: 450 },
      timesS: [0, 600, 1200, 1800],
      roomC: [23, 23, 23, 23],
      probes: [{ name: 'P1', place: 'low', xMm: 10, yMm: 10, zMm: 40, readC: [70, 70, 70, 70] }],
      bedC: 100,
      shielded: true,
      probeUC: 0.5,
      occurredAt: ago(0.1),
      confirmed,
    }),
    '/api/plans': () => ({
      printerId: printer.id,
      name: 'A plan of the API',
      size: { widthMm: 400, depthMm: 400, heightMm: 400 },
      walls: [{ name: 'front', face: 'side', areaM2: 0.16, layers: [{ material: 'acrylic', mm: 4 }] }],
      roomC: 23,
      bed: { setC: 100, areaM2: 0.09, powerW: 300, under: 'bare' },
      nozzleW: 15,
      stirred: false,
      insideKg: 8,
      gapMm2: 1000,
      gapThenMm2: 500,
      ventLMin: 0,
      heaterW: 0,
      heaterNow: false,
      occurredAt: ago(0.1),
    }),
    '/api/cut-out-tests': () => ({
      printerId: printer.id,
      guard: 'bed thermal cut-out',
      tripped: true,
      atC: 130,
      occurredAt: ago(0.1),
    }),
    '/api/scales': () => ({ setupId: 1, how: 'pin', knownMm: 0.5, umPerPx: 2, uUmPerPx: 0.01, occurredAt: ago(0.1) }),
    '/api/studies': () => ({
      name: 'Pins, by two',
      method: 'pins',
      personIds: shop.people.slice(0, 2).map(p => p.id),
      nozzleIds: shop.nozzles.slice(0, 2).map(n => n.id),
      repeats: 2,
      occurredAt: ago(0.1),
    }),
    '/api/study-readings': () => ({
      studyId: made.study,
      line: 0,
      goMm: 0.42,
      noGoMm: 0.43,
      occurredAt: ago(0.05),
      confirmed: ['far-off'],
    }),
    '/api/cards': () => ({
      materialId: material.id,
      typeId: shop.types[0]!.id,
      printerId: printer.id,
      card: { nozzleC: 280, note: 'api' },
    }),
    '/api/benches': () => ({
      headId: benched.heads[0]!.id,
      spoolId: shop.spools.find(s => s.material.startsWith('PA6-CF'))!.id,
      temperaturesC: [265],
      flowsMm3S: [8, 10, 12],
      repeats: 1,
      balanceStepG: 0.01,
      stand: { xMm: 20, yMm: 20, zMm: 60 },
      occurredAt: ago(0.1),
    }),
    '/api/blobs': () => ({ benchId: made.bench, line: 0, grossG: 2.95, occurredAt: ago(0.05), confirmed: ['far-off'] }),
    '/api/filament-measures': () => ({ benchId: made.bench, mark: { toldMm: 100, fedMm: 99 }, occurredAt: ago(0.05) }),
    '/api/cases': () => ({ headId: head.id, seen: ['popping'], not: ['ooze'], occurredAt: ago(0.06) }),
    '/api/findings': () => ({
      caseId: made.case,
      kind: 'test',
      key: 'lens',
      state: 'bubbles in the strand',
      occurredAt: ago(0.05),
    }),
    '/api/closings': () => ({
      caseId: made.case,
      cause: 'moisture',
      known: 'by a test',
      how: 'bubbles through the lens',
      occurredAt: ago(0.04),
    }),
    '/api/fittings': () => ({ kind: 'retire', nozzleId: spare.id, reason: 'worn oval', occurredAt: ago(0.1) }),
    '/api/jobs': () => job,
    '/api/printers': () => ({
      name: 'Skirfare',
      kind: 'open frame',
      note: '',
      heads: [{ name: 'head' }],
      parts: [{ kind: 'enclosure' }, { kind: 'bead thermistor, 12-bit reading', head: 0 }],
    }),
    '/api/parts': () => ({ kind: 'belts' }),
    '/api/changes': () => ({
      printerId: printer.id,
      text: 'hardened gears fitted',
      occurredAt: ago(0.05),
      add: [{ kind: 'hardened gears', headId: head.id }],
      confirmed,
    }),
    '/api/materials': () => ({
      name: 'API-CF10',
      polymer: 'PA6',
      filler: 'carbon fibre',
      fillerFraction: 0.1,
      abrasivity: 1,
      basis: 'practice',
    }),
    '/api/material-values': () => ({ materialId: noSuch.id, key: 'meltC', value: 260, basis: 'data sheet', note: '' }),
    '/api/practice-sets': () => ({
      materialId: material.id,
      set: { name: 'api', chamber: 'indifferent', dry: false, basis: 'practice' },
    }),
    '/api/nozzle-types': () => ({ ...shop.types[0]!, name: 'api type', id: undefined, version: undefined }),
    '/api/nozzles': () => ({
      tag: 'N-API',
      typeId: shop.types[0]!.id,
      wasUsed: false,
      receivedAt: ago(1),
      note: '',
      receipt: null,
    }),
    '/api/spools': () => ({ tag: 'S-API', materialId: material.id, diameterMm: 1.75, netG: 1000 }),
    '/api/spool-events': () => ({
      spoolId: spool.id,
      kind: 'weighed',
      grossG: (row.tareG ?? 200) + 100,
      occurredAt: ago(0.1),
    }),
    '/api/dryers': () => ({ name: 'API dryer', kind: dryer.kind, ceilingC: 90, basis: 'nameplate' }),
    '/api/dryings': () => ({
      spoolId: spool.id,
      dryerId: dryer.id,
      setC: 40,
      plannedH: 1,
      occurredAt: ago(0.05),
      confirmed,
    }),
    '/api/endings': () => ({ target: 'drying', targetId: made.drying, occurredAt: ago(0.01), confirmed }),
    '/api/soaks': () => ({
      printerId: printer.id,
      bedC: 60,
      part: 'small',
      minutes: 5,
      basis: 'practice',
      occurredAt: ago(0.05),
      confirmed,
    }),
    '/api/warm-ups': () => ({
      printerId: printer.id,
      place: 'high',
      bedC: 100,
      roomC: 23,
      occurredAt: ago(5),
      readings: Array.from({ length: 60 }, (_, i) => ({ s: i * 60, c: 60 - 37 * Math.exp(-i / 15) })),
    }),
    '/api/changeovers': () => ({
      headId: head.id,
      nozzleId: head.nozzleId,
      fromMaterialId: material.id,
      toMaterialId: shop.materials[1]!.id,
      atC: 200,
      volumeMm3: 100,
      clean: true,
      occurredAt: ago(0.05),
      confirmed,
    }),
    '/api/anneals': () => ({
      name: 'bracket',
      materialId: material.id,
      dryerId: dryer.id,
      atC: 45,
      holdH: 1,
      rampCPerH: 30,
      thicknessMm: 4,
      occurredAt: ago(0.05),
      confirmed,
    }),
    '/api/warm-up-places': () => ({ warmUpId: warmUps[0]!.id, place: 'high', occurredAt: ago(0.1) }),
    '/api/check-lines': () => ({ says: 'The extraction is on', printerId: printer.id }),
    '/api/prechecks': () => ({
      printerId: printer.id,
      headId: head.id,
      spoolId: spool.id,
      materialId: row.materialId,
      printsFrom: 'room',
      hours: 2,
      name: 'api',
      occurredAt: ago(0.01),
    }),
    '/api/procedures': () => ({ kind: 'swap', headId: head.id, nozzleId: next.id, occurredAt: ago(0.01), confirmed }),
    '/api/ticks': () => ({ procedureId: made.procedure, step: 'take', occurredAt: ago(0.01) }),
    '/api/cool-downs': () => ({
      printerId: printer.id,
      materialId: material.id,
      name: 'bracket',
      thicknessMm: 8,
      bedC: 90,
      occurredAt: ago(0.01),
    }),
    '/api/tags': () => ({
      printerId: printer.id,
      why: 'a frayed wire',
      must: ['wiring mended'],
      occurredAt: ago(0.01),
    }),
    '/api/notes': () => ({ printerId: printer.id, says: 'the belt was tightened', occurredAt: ago(0.01) }),
    '/api/people': () => ({ name: 'API technician', role: 'technician' }),
    '/api/strikes': () => ({ target: 'run', targetId: made.run, reason: 'entered by a test' }),
  }
}

/** Edits of the others concern every reading. */
const NAMED_KINDS: readonly EditableKind[] = ['setups', 'dryers', 'check-lines', 'cards', 'nozzles', 'spools']
const fittedTags = (shop: Shop) => shop.printers.slice(0, 2).flatMap(p => p.heads.flatMap(h => h.nozzle ?? []))

test('each entry, question and edit', async () => {
  test.setTimeout(400_000)
  const shop = await read<Shop>('/api/shop')
  const equip = await read<Equip>('/api/equip')
  const entries = bodies(
    shop,
    equip,
    await read<Prepare>('/api/prepare'),
    (await Promise.all(shop.printers.map(p => read<WarmUpLine[]>(`/api/warm-ups/${p.id}`)))).flat(),
    await read<Upkeep>('/api/upkeep'),
    await read<DueList>('/api/due'),
  )
  expect(Object.keys(entries).sort()).toEqual(Object.keys(ENTRIES).sort())
  const watch = new NewsWatch(url(''), {
    '/api/nozzles/{tag}': ['N-020', ...fittedTags(shop)].map(tag => ({ tag })),
    '/api/spools/{tag}': shop.spools.slice(0, 4).map(({ tag }) => ({ tag })),
    '/api/cards/{id}': equip.materials.slice(0, 2).map(({ id }) => ({ id })),
    '/api/warm-ups/{id}': shop.printers.slice(0, 1).map(({ id }) => ({ id })),
  })
  await watch.begin()
  for (const [path, body] of Object.entries(entries) as [EntryPath, () => Record<string, unknown>][]) {
    const { status, answer } = await send('POST', path, body())
    expect.soft([path, status, answer]).toEqual([path, 201, answer])
    if (status === 201) holds(path, ENTRIES[path].answer, answer)
    if (path === '/api/runs') made.run = answer.runId as number
    if (path === '/api/procedures') made.procedure = answer.id as number
    if (path === '/api/references') made.reference = answer.id as number
    if (path === '/api/studies') made.study = answer.id as number
    if (path === '/api/benches') made.bench = answer.id as number
    if (path === '/api/cases') made.case = answer.id as number
    if (path === '/api/dryings') made.drying = answer.id as number
    await watch.after(path)
  }
  const asks: Record<AskPath, Record<string, unknown>> = {
    '/api/prechecks/preview': entries['/api/prechecks'](),
    '/api/intake/pieces': { stage: 'api-stage', nr: 0, lines: [{ line: 1, values: { name: 'Somebody' } }] },
    '/api/intake/drop': { stage: 'api-stage' },
    '/api/intake/look': { table: 'people', lines: [{ line: 1, values: { name: 'Somebody' } }] },
    '/api/stand-in': { what: 'door', printer: shop.printers[0]!.name, open: false },
  }
  for (const [path, body] of Object.entries(asks) as [AskPath, unknown][]) {
    const { status, answer } = await send('POST', path, body)
    expect([path, status]).toEqual([path, 200])
    holds(path, ASKS[path].answer, answer)
  }
  const material = equip.materials.find(m => m.values.length > 0 && m.sets.length > 0)!
  const part = equip.printers[0]!.parts[0]!
  const { settings } = shop
  const edits: Record<EditableKind, { id: number; version: number } & Record<string, unknown>> = {
    'printers': shop.printers[1]!,
    'people': shop.people[0]!,
    'parts': { ...part, name: 'a name' },
    'hotends': equip.hotends[0]!,
    'dryers': (await read<Prepare>('/api/prepare')).dryers[0]!,
    'check-lines': (await read<Prepare>('/api/prepare')).checkLines[0]!,
    'calendar-feeds': { ...(await read<DueList>('/api/due')).feeds[0]! },
    'upkeep-tasks': { ...(await read<Upkeep>('/api/upkeep')).printers[0]!.tasks[0]! },
    'pins': { ...(await read<PinLine[]>('/api/pins'))[0]! },
    'stock-items': {
      id: 1,
      version: 1,
      kind: 'belt',
      name: 'Belt of another make',
      minimum: 3,
      price: 4,
      pricedOn: '2026-02-28',
    },
    'beds': { ...(await read<LevelPage>(`/api/levels/${shop.printers.at(-1)!.id}`)).bed! },
    'materials': shop.materials.find(m => m.id !== material.id)!,
    'material-values': material.values[0]!,
    'cards': { id: 1, version: 1, nozzleC: 279 },
    'practice-sets': material.sets[0]!,
    'setups': (await read<SetupLine[]>('/api/setups'))[1]!,
    'references': { ...(await read<Verify>('/api/verify')).references[0]! },
    'nozzle-types': shop.types[0]!,
    'nozzles': { ...shop.nozzles[0]!, law: 'linear', note: 'a note', version: 1 },
    'spools': shop.spools[0]!,
    'settings': settings,
    'rules': { ...settings, version: settings.version + 1 },
    'prices': { ...settings, version: settings.version + 2 },
  }
  for (const [kind, { id, version, ...values }] of Object.entries(edits) as [EditableKind, (typeof edits)['parts']][]) {
    const { status, answer } = await send('PATCH', pathOf(EDIT.path, { kind, id }), { version, values })
    expect.soft([kind, status, answer]).toEqual([kind, 200, { version: version + 1 }])
    holds(kind, EDIT.answer, answer)
    if (NAMED_KINDS.includes(kind)) await watch.after(`an edit of ${kind}`)
  }
  watch.stop()
})

test('an edit leaves what it does not name: the room and the dry box outlast an edit of the guard bands', async () => {
  const { settings } = await read<Shop>('/api/shop')
  const { roomRh, dryBoxRh, dryBoxReadAt, highestFlowMm3S, currency, id, version, ...others } = settings
  const { status } = await send('PATCH', pathOf(EDIT.path, { kind: 'rules', id }), {
    version,
    values: { ...others, guardBedC: 6 },
  })
  expect(status).toBe(200)
  const after = (await read<Shop>('/api/shop')).settings
  expect(after).toMatchObject({ guardBedC: 6, roomRh, dryBoxRh, dryBoxReadAt, highestFlowMm3S, currency })
})

test('each read', async () => {
  const known: Record<string, string | number> = { tag: 'N-014', id: 1 }
  const jobs = await read<{ id: number }[]>('/api/jobs')
  const checks = (await read<Prepare>('/api/prepare')).checks
  const params: Partial<Record<ReadPath, Record<string, string | number>>> = {
    '/api/spools/{tag}': { tag: 'S-07' },
    '/api/edits/{kind}/{id}': { kind: 'settings', id: 1 },
    '/api/entered/{kind}/{id}': { kind: 'gauge', id: 1 },
    '/api/jobs/{id}': { id: jobs[0]!.id },
    '/api/prechecks/{id}': { id: checks[0]?.id ?? 0 },
  }
  for (const [path, route] of Object.entries(READS)) {
    const response = await fetch(url(pathOf(path, params[path as ReadPath] ?? known)))
    expect(response.status, path).toBe(200)
    holds(path, route.answer, await response.json())
  }
})

test('every route file is in the list and in the description, with who may use it', async () => {
  const folder = join(import.meta.dirname, '../../server/api')
  const files = (readdirSync(folder, { recursive: true }) as string[])
    .filter(f => /\.(get|post|patch)\.ts$/.test(f))
    .map(f => {
      const [, path, method] = /^(.*?)(?:\/index)?\.(get|post|patch)\.ts$/.exec(f)!
      return `${method!.toUpperCase()} /api/${path!.replace(/\[(\w+)\]/g, '{$1}')}`
    })
  const listed = [
    ...[...Object.keys(READS), ...Object.keys(FILES), ...Object.keys(STREAMS)].map(p => `GET ${p}`),
    ...[...Object.keys(ENTRIES), ...Object.keys(ASKS)].map(p => `POST ${p}`),
    `PATCH ${EDIT.path}`,
  ]
  expect(files.sort()).toEqual(listed.sort())
  const { paths } = await read<{ paths: Record<string, Record<string, { 'x-who': string }>> }>('/api/openapi')
  const described = Object.entries(paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, o]) => [`${method.toUpperCase()} ${path}`, o['x-who']] as const),
  )
  const wanted = listed.flatMap(r =>
    r.startsWith('PATCH') ? Object.keys(EDIT.bodies).map(kind => r.replace('{kind}', kind)) : [r],
  )
  expect(described.map(([r]) => r).sort()).toEqual(wanted.sort())
  for (const [r, who] of described) expect(WHO as readonly string[], r).toContain(who)
})
