/** A database of its own for a test file, and a small shop to work in. */
import { randomBytes } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { gunzipSync } from 'node:zlib'
import postgres from 'postgres'
import { afterAll, inject } from 'vitest'
import { demoCopy, restoreDemo } from '../demo-copy'
import { loadDemo } from '../../demo/load'
import { connect, type Database } from '../../server/db/client'
import { migrationFiles } from '../../server/db/files'
import { migrate } from '../../server/db/migrate'
import { addMaterial } from '../../server/records/materials/materials'
import { refreshMissingCeilings } from '../../server/records/printers/ceilings'
import { addPrinter } from '../../server/records/printers/stack-change'
import { addNozzle } from '../../server/records/nozzles/nozzles'
import { addNozzleType } from '../../server/records/nozzles/types'
import { addSpool } from '../../server/records/spools/spools'
import { saveFitting } from '../../server/records/printers/fittings'
import { Refusal } from '../../server/records/entry/refusal'
import { surveySchema } from '#shared/entries/chambers'
import { fittingSchema, printerSchema } from '#shared/entries/printers'
import { gaugeSchema, nozzleSchema, nozzleTypeSchema } from '#shared/entries/nozzles'
import { planSchema } from '#shared/entries/plans'
import { materialSchema } from '#shared/entries/materials'
import { runSchema, type RunEntry } from '#shared/entries/runs'
import { spoolSchema } from '#shared/entries/spools'
import type { Problem } from '#shared/problem'

/** Gone again after the tests of the file. */
async function ownDatabase(prefix: string, as: string) {
  const adminUrl = inject('adminUrl')
  const name = `${prefix}_${randomBytes(6).toString('hex')}`
  const admin = postgres(adminUrl, { max: 1, onnotice: () => {} })
  await admin.unsafe(`create database ${name} ${as}`)
  const url = adminUrl.replace(/\/postgres$/, `/${name}`)
  const { client, db } = connect(url, { max: 5 })
  afterAll(async () => {
    await client.end({ timeout: 2 })
    await admin.unsafe(`drop database ${name} with (force)`)
    await admin.end()
  })
  return { db, client, url }
}
export const freshDatabase = () => ownDatabase('test', `template ${inject('template')}`)

/** The demo shop, and when it was loaded for. */
export async function demoDatabase() {
  const copy = demoCopy()
  if (copy !== null) {
    const own = await ownDatabase('demo', '')
    restoreDemo(copy.file, own.url)
    return { ...own, anchor: copy.anchor }
  }
  const own = await freshDatabase()
  const anchor = new Date()
  await loadDemo(own.db, anchor)
  return { ...own, anchor }
}

/** A database of an older version: its dump from `tests/samples/databases`, brought up to date as a start does. */
export async function fromDump(file: string, before = '', migrations = migrationFiles()): Promise<Database> {
  const { db, client, url } = await ownDatabase('old', '')
  const loader = postgres(url, { max: 1, onnotice: () => {} })
  const dump = readFileSync(new URL(`../samples/databases/${file}`, import.meta.url))
  await loader.unsafe(gunzipSync(dump).toString())
  await loader.unsafe(before)
  await loader.end()
  await migrate(client, migrations)
  await refreshMissingCeilings(db)
  return db
}

export const ago = (days: number) => new Date(Date.now() - days * 86_400_000).toISOString()
const sheet = (kind: string, name: string, limitC: number, head: number | null = null) => ({
  kind,
  head,
  name,
  limitC,
  basis: 'data sheet' as const,
  note: '',
})
/** An enclosed printer that stops at 290 (sensor), 110 (heater) and 65 °C (belt), guard bands taken off. */
export const printerEntry = (name: string, heads = ['head']) =>
  printerSchema.parse({
    name,
    kind: 'enclosed',
    heads: heads.map(h => ({ name: h })),
    parts: [
      ...heads.map((_, i) => sheet('bead thermistor, 12-bit reading', 'sensor', 300, i)),
      sheet('bed heater', 'heater', 115),
      sheet('belts', 'belt', 70),
      { kind: 'enclosure' },
      { kind: 'lid' },
    ],
  })
/** A survey of such a printer: two probes that come to `lowC` and `highC`, and the room at 23 °C. */
export function surveyEntry(printerId: number, [lowC, highC]: [number, number], more: object = {}) {
  const timesS = [0, 300, 600, 900, 1200, 1500]
  const still = (c: number) => timesS.map((_, i) => c + (i % 2) * 0.1)
  const at = (name: string, place: string, zMm: number, c: number) => ({
    name,
    place,
    xMm: 100,
    yMm: 100,
    zMm,
    readC: still(c),
  })
  return surveySchema.parse({
    printerId,
    state: { opening: 'shut' },
    size: { widthMm: 350, depthMm: 350, heightMm: 400 },
    timesS,
    roomC: still(23),
    probes: [at('P1', 'low', 40, lowC), at('P2', 'high', 370, highC)],
    bedC: 100,
    shielded: true,
    probeUC: 0.5,
    occurredAt: ago(0.2),
    ...more,
  })
}
export const planEntry = (printerId: number, name: string, more: object = {}) =>
  planSchema.parse({
    printerId,
    name,
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
    ...more,
  })
export const typeEntry = (name: string, material = 'hardened steel') =>
  nozzleTypeSchema.parse({
    name,
    material,
    nominalBoreMm: 0.4,
    lengthMm: 12.5,
    coneDeg: 60,
    tipFlatMm: 1,
    landMm: 0.8,
    inletMm: 2,
    basis: 'data sheet',
  })
export const materialEntry = (name: string, more: object = {}) =>
  materialSchema.parse({
    name,
    polymer: 'PA6',
    filler: 'carbon fibre',
    fillerFraction: 0.2,
    densityGCm3: 1.228,
    abrasivity: 1,
    basis: 'data sheet',
    ...more,
  })

export interface SmallShop {
  printerId: number
  headId: number
  typeId: number
  materialId: number
  nozzleId: number
  spoolId: number
}

/** One printer, one head, N-1 fitted to it 30 days ago, one spool of PA6-CF20. */
export async function smallShop(db: Database): Promise<SmallShop> {
  return await db.transaction(async tx => {
    const printer = await addPrinter(tx, printerEntry('Ribble'), 1, new Date(ago(60)))
    const type = await addNozzleType(tx, typeEntry('hardened steel 0.4'), 1)
    const material = await addMaterial(tx, materialEntry('PA6-CF20'), 1)
    const nozzle = await addNozzle(
      tx,
      nozzleSchema.parse({
        tag: 'N-1',
        typeId: type.id,
        receivedAt: ago(40),
        receipt: { valueMm: 0.401, uMm: 0.002, tipMm: 12.5 },
      }),
      1,
    )
    const spool = await addSpool(
      tx,
      spoolSchema.parse({ tag: 'S-1', materialId: material.id, diameterMm: 1.75, netG: 1000, tareG: 200 }),
      1,
    )
    await saveFitting(
      tx,
      fittingSchema.parse({ kind: 'fit', nozzleId: nozzle.id, headId: printer.headIds[0], occurredAt: ago(30) }),
      1,
    )
    return {
      printerId: printer.id,
      headId: printer.headIds[0]!,
      typeId: type.id,
      materialId: material.id,
      nozzleId: nozzle.id,
      spoolId: spool.id,
    }
  })
}

export function runEntry(
  s: SmallShop,
  more: Partial<RunEntry> = {},
  amount: RunEntry['tools'][number]['amount'] = { kind: 'grams', grams: 312 },
) {
  return runSchema.parse({
    printerId: s.printerId,
    name: 'cable guide',
    endedAt: ago(1),
    outcome: 'finished',
    tools: [{ tool: 0, headId: s.headId, nozzleId: s.nozzleId, spoolId: s.spoolId, amount }],
    ...more,
  })
}
export const gaugeEntry = (s: SmallShop, more: object) =>
  gaugeSchema.parse({ nozzleId: s.nozzleId, occurredAt: ago(0.5), ...more })

/** The problem that a refused entry answers with; fails when it is taken. */
export async function refusal(work: Promise<unknown>): Promise<Problem> {
  try {
    await work
  } catch (error) {
    if (error instanceof Refusal) return error.problem
    throw error
  }
  throw new Error('it was taken')
}
