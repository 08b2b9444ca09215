/**
 * Beds of the demo: level ones by feeler, a warped one with its mesh, a Z that drifts with its nozzle; and a clog that
 * a cold pull cleared.
 */
import { mulberry32, normalDraw } from '#core/numeric'
import { clogSteps } from '#core/procedures'
import { procedureSchema, tickSchema } from '#shared/entries/change'
import { bedSchema, levelSchema, zRecordSchema } from '#shared/entries/level'
import { endingSchema } from '#shared/entries/log'
import type { Connection } from '../server/db/client'
import { beginProcedure } from '../server/records/change/begin'
import { clogOffer } from '../server/records/change/clog'
import { saveTick } from '../server/records/change/ticks'
import { saveEnding } from '../server/records/entry/endings'
import { addBed } from '../server/records/level/beds'
import { saveLevel } from '../server/records/level/levels'
import { saveZRecord } from '../server/records/level/z-records'

interface Shop {
  printers: Map<string, number>
  heads: Map<string, number>
  /** A time so many days before the anchor. */
  daysAgo: (days: number, hour: number) => string
  technician: number
  night: number
}
const corner = (name: string, xMm: number, yMm: number) => ({ name, xMm, yMm })
const THREE = [corner('front left', 30, 30), corner('front right', 270, 30), corner('back', 150, 270)]
const FOUR = [
  corner('front left', 30, 30),
  corner('front right', 220, 30),
  corner('back left', 30, 220),
  corner('back right', 220, 220),
]
const WARPED_SIDE = 7
/** How far its middle stands up, mm. */
const DOME_MM = 0.36

export async function addLevels(tx: Connection, shop: Shop): Promise<void> {
  const random = mulberry32(1931)
  const bed = (printer: string, sideMm: number, screws: typeof THREE, more: object = {}) =>
    addBed(
      tx,
      bedSchema.parse({
        printerId: shop.printers.get(printer),
        widthMm: sideMm,
        depthMm: sideMm,
        screws,
        pitchMm: 0.7,
        clockwise: 'lowers',
        basis: 'practice',
        ...more,
      }),
      shop.technician,
    )
  await bed('Calder', 300, THREE, { pitchMm: 0.5, basis: 'data sheet' })
  await bed('Ribble', 300, THREE)
  await bed('Wharfe', 300, THREE)
  await bed('Nidd', 250, FOUR)
  const feeler = (printer: string, daysAgo: number, bedC: number, rounds: number[][]) =>
    saveLevel(
      tx,
      levelSchema.parse({
        printerId: shop.printers.get(printer),
        bedC,
        soakedMin: 25,
        measured: {
          how: 'feeler',
          wantedMm: 0.1,
          rounds: rounds.map(gaps => gaps.map((gapMm, i) => ({ xMm: THREE[i]!.xMm, yMm: THREE[i]!.yMm, gapMm }))),
        },
        occurredAt: shop.daysAgo(daysAgo, 7.5),
      }),
      shop.technician,
    )
  await feeler('Calder', 9, 140, [
    [0.1, 0.24, 0.15],
    [0.1, 0.11, 0.12],
  ])
  await feeler('Ribble', 5, 100, [
    [0.3, 0.1, 0.18],
    [0.12, 0.1, 0.14],
    [0.1, 0.1, 0.12],
  ])
  await feeler('Wharfe', 3, 100, [[0.1, 0.28, 0.12]])
  await addMesh(tx, shop, () => 0.008 * normalDraw(random))
  await addDrift(tx, shop, () => 0.006 * normalDraw(random))
  await addClog(tx, shop)
}

/** The bed of Nidd stands up in the middle: its plate was heated on one side too fast. */
async function addMesh(tx: Connection, shop: Shop, scatter: () => number): Promise<void> {
  const along = (i: number) => (2 * i) / (WARPED_SIDE - 1) - 1
  const height = (r: number, c: number) =>
    DOME_MM * (1 - (along(r) ** 2 + along(c) ** 2) / 2) + 0.03 * along(c) - 0.18 + scatter()
  const rows = Array.from({ length: WARPED_SIDE }, (_, r) =>
    Array.from({ length: WARPED_SIDE }, (_, c) => (r === 5 && c === 1 ? null : Number(height(r, c).toFixed(3)))),
  )
  const mesh = { how: 'mesh', rows, leftMm: 20, rightMm: 230, frontMm: 20, backMm: 230, firstRow: 'front' }
  await saveLevel(
    tx,
    levelSchema.parse({
      printerId: shop.printers.get('Nidd'),
      bedC: 70,
      soakedMin: 15,
      measured: mesh,
      note: 'the probe gave nothing over the clip',
      occurredAt: shop.daysAgo(6, 10),
    }),
    shop.night,
  )
}

/** On Wharfe Z comes down week by week: the tip wears. */
async function addDrift(tx: Connection, shop: Shop, scatter: () => number): Promise<void> {
  for (let week = 7; week >= 0; week--)
    await saveZRecord(
      tx,
      zRecordSchema.parse({
        headId: [...shop.heads].find(([name]) => name.startsWith('Wharfe/'))![1],
        why: 'feeler',
        zMm: Number((-1.42 + 0.015 * week + scatter()).toFixed(3)),
        probeMm: Number((-1.9 + scatter()).toFixed(3)),
        way: 'larger is higher',
        occurredAt: shop.daysAgo(3 + 7 * week, 7.75),
      }),
      shop.technician,
    )
}

/** What was entered at the steps of the clog, by their keys. */
const ENTERED: Record<string, Record<string, string | number>> = {
  feed: { shows: 'thin or curling' },
  needle: { needle: 'better' },
  pull: { pull: 'runs' },
  cleared: { clearedBy: 'cold pull' },
}
async function addClog(tx: Connection, shop: Shop): Promise<void> {
  const headId = [...shop.heads].find(([name]) => name.startsWith('Wharfe/'))![1]
  const { facts } = await clogOffer(tx, headId)
  const began = Date.parse(shop.daysAgo(18, 13))
  const at = (minutes: number) => new Date(began + minutes * 60_000).toISOString()
  const { id } = await beginProcedure(
    tx,
    procedureSchema.parse({ kind: 'clog', headId, note: 'thin lines since noon', occurredAt: at(0) }),
    shop.technician,
  )
  const steps = clogSteps(facts!)
  const holds = facts!.materials.find(m => m.name === facts!.holds) ?? facts!.materials[0]!
  for (const [i, s] of steps.entries())
    await saveTick(
      tx,
      tickSchema.parse({
        procedureId: id,
        step: s.key,
        values: { ...ENTERED[s.key], ...(s.key === 'purge' ? { material: String(holds.id) } : {}) },
        reading: s.wait && { c: s.wait.setC - 1 },
        occurredAt: at(2 + 4 * i),
      }),
      shop.technician,
    )
  const ended = { target: 'procedure', targetId: id, outcome: 'done', occurredAt: at(4 + 4 * steps.length) }
  await saveEnding(tx, endingSchema.parse(ended), shop.technician)
}
