/** Flow benches from the door to what they tell: limits, weights, strikes, the run, the check before the next job. */
import { sql } from 'drizzle-orm'
import { expect, test } from 'vitest'
import { benchFile } from '#core/flow'
import { Scan } from '#core/gcode'
import { startWindow } from '#core/limits'
import { massG } from '#core/materials'
import { benchSchema, blobSchema, filamentMeasureSchema } from '#shared/entries/flow'
import { endingSchema } from '#shared/entries/log'
import { precheckSchema } from '#shared/entries/prepare'
import { serviceTagSchema } from '#shared/entries/change'
import { spoolSchema } from '#shared/entries/spools'
import { nozzleSchema } from '#shared/entries/nozzles'
import { fittingSchema } from '#shared/entries/printers'
import { saveServiceTag } from '../../server/records/change/service'
import type { Connection } from '../../server/db/client'
import { saveEnding } from '../../server/records/entry/endings'
import { saveStrike } from '../../server/records/entry/strikes'
import { addBench, benchPage, listBenches } from '../../server/records/flow/benches'
import { benchPlan } from '../../server/records/flow/plan'
import { saveBlob, saveFilamentMeasure } from '../../server/records/flow/weigh'
import { addMaterial } from '../../server/records/materials/materials'
import { addNozzle, nozzlePage } from '../../server/records/nozzles/nozzles'
import { makePrecheck } from '../../server/records/prepare/prechecks'
import { saveFitting } from '../../server/records/printers/fittings'
import { addSpool } from '../../server/records/spools/spools'
import { delivers, type Head } from '../../sim/flow-bench'
import { ago, freshDatabase, materialEntry, refusal, smallShop } from './support'

const { db } = await freshDatabase()
const shop = await smallShop(db)
const tx = <T>(work: (c: Connection) => Promise<T>) => db.transaction(work)
const window = startWindow('PA6', 'carbon fibre')!
const material = await tx(c =>
  addMaterial(c, materialEntry('PA6-CF20 with its window', { facts: window.facts, sets: window.sets }), 1),
)
const spool = await tx(c =>
  addSpool(c, spoolSchema.parse({ tag: 'S-7', materialId: material.id, diameterMm: 1.75, netG: 1000, tareG: 200 }), 1),
)
const DENSITY = 1.228
const nominal = massG(1000, 1.75, DENSITY)
const set = {
  headId: shop.headId,
  spoolId: spool.id,
  temperaturesC: [265],
  flowsMm3S: [6, 8, 10, 12],
  repeats: 2,
  balanceStepG: 0.01,
  stand: { xMm: 20, yMm: 20, zMm: 60 },
}
/** Moments one after the other: the minutes of this test's day. */
let minute = 600
const next = () => ago(minute-- / 1440)
const begin = (more: object = {}) => tx(c => addBench(c, benchSchema.parse({ ...set, occurredAt: next(), ...more }), 1))
const weigh = (benchId: number, line: number, grossG: number, more: object = {}) =>
  tx(c =>
    saveBlob(c, blobSchema.parse({ benchId, line, grossG: Number(grossG.toFixed(2)), occurredAt: next(), ...more }), 1),
  )
const strike = (target: 'flow bench' | 'blob' | 'filament measure', targetId: number) =>
  tx(c => saveStrike(c, { target, targetId, reason: 'for the test', confirmed: [] }, 1))
const end = (targetId: number, outcome: 'done' | 'stopped early' = 'done') =>
  tx(c => saveEnding(c, endingSchema.parse({ target: 'flow bench', targetId, outcome, occurredAt: next() }), 1))
const melts: Head = { meltsMm3S: 11, atC: 265, gripsMm3S: 90, clogMm3S: null, level: 1 }
async function weighAll(benchId: number, head: Head): Promise<void> {
  for (const [i, l] of (await benchPage(db, benchId)).lines.entries())
    await weigh(benchId, i, nominal * delivers(head, l.temperatureC, l.flowMm3S))
}
const messageOf = async (work: Promise<unknown>) => {
  const p = await refusal(work)
  const [said] = p.errors ?? p.questions ?? []
  return [said?.field, said?.message]
}

test('a bench keeps its order, is worked off and tells what is sustained', async () => {
  const { id } = await begin()
  const page = await benchPage(db, id)
  expect(page.lines.map(l => l.flowMm3S)).toEqual([6, 8, 10, 12, 12, 10, 8, 6])
  expect(page).toMatchObject({ nozzle: 'N-1', material: 'PA6-CF20 with its window', weighed: 0, result: null })
  await weighAll(id, melts)
  const told = await benchPage(db, id)
  // 95 % of what melts at 11 mm³/s and bends by the eighth power: 11·(0.95⁻⁸ − 1)^(1/8) = 10.1
  expect(told.result!.sustained[0]!.flowMm3S).toBeGreaterThan(9.6)
  expect(told.result!.sustained[0]!.flowMm3S).toBeLessThan(10.8)
  expect(told.level!.asks.kind).toBe('fine')
  expect(told.limit).toMatchObject({ limit: 'cannot tell', next: 'hotter' })
  expect((await listBenches(db))[0]).toMatchObject({ id, weighed: 8, blobs: 8, ended: null })
  // the same file anew from what is stored, read by the app's own reader
  const f = benchFile({
    title: 'again',
    temperaturesC: [265],
    flowsMm3S: [6, 8, 10, 12],
    repeats: 2,
    lengthMm: told.lengthMm,
    diameterMm: told.diameterMm,
    densityGCm3: told.densityGCm3,
    stand: told.stand,
    tool: told.tool,
  })
  const scan = new Scan({})
  scan.push(new TextEncoder().encode(f))
  expect(massG(scan.finish().totalExtrudedMm!, 1.75, DENSITY)).toBeCloseTo(nominal * 8.04, 4)
})

test('its end logs a run: off the spool, through the nozzle, what was repeated too', async () => {
  const [bench] = await listBenches(db)
  const before = await nozzlePage(db, 'N-1')
  const first = (await benchPage(db, bench!.id)).lines[0]!.blob!
  await strike('blob', first.id)
  expect(await messageOf(end(bench!.id))).toEqual(['outcome', expect.stringContaining('1 of 8 blobs')])
  await weigh(bench!.id, 0, nominal)
  await end(bench!.id)
  const page = await benchPage(db, bench!.id)
  const weighed = [...page.lines.map(l => l.blob!.massG), first.massG].reduce((a, b) => a + b, 0)
  expect(page.run!.grams).toBeCloseTo(weighed + nominal * 0.04, 6)
  expect(page.struckBlobs).toHaveLength(1)
  const after = await nozzlePage(db, 'N-1')
  expect(after.extrudedG - before.extrudedG).toBeCloseTo(page.run!.grams, 6)
  expect(after.fibreG - before.fibreG).toBeCloseTo(0.2 * page.run!.grams, 6)
  expect(await messageOf(weigh(bench!.id, 0, 2.9))).toEqual(['benchId', expect.stringContaining('has ended')])
  expect(after.flow).toMatchObject([{ benchId: bench!.id, material: 'PA6-CF20 with its window', dropped: null }])
})

test('the check before the next job knows it, at this temperature and hotter', async () => {
  const check = async (peak: number, setC: number) => {
    const scan = {
      filamentDiameterMm: 1.75,
      tools: [{ index: 0, extrudedMm: 1000, offPartMm: 0, printingMm: 1000 }],
      maxSetpointC: { tools: { 0: setC }, bed: 100, chamber: null },
      toolFlow: [{ index: 0, peak }],
      flow: { peak },
    }
    const asked = {
      printsFrom: 'room',
      printerId: shop.printerId,
      headId: shop.headId,
      spoolId: spool.id,
      materialId: material.id,
    }
    const q = precheckSchema.parse({ ...asked, name: 'x.gcode', scan, hours: 1, occurredAt: ago(0) })
    return (await makePrecheck(db, q)).lines.find(l => l.key === 'flow')!
  }
  expect(await check(8.5, 265)).toMatchObject({ status: 'ok', says: expect.stringContaining('at 265 °C') as string })
  expect(await check(8.5, 280)).toMatchObject({ status: 'ok' })
  expect(await check(13.5, 265)).toMatchObject({ status: 'look', says: expect.stringContaining('thin') as string })
  // cooler than anything that was tried tells nothing
  expect(await check(8.5, 260)).toMatchObject({ status: 'unknown' })
})

test('a clog since the first bench is evidence, and a struck bench none', async () => {
  const { id } = await begin()
  await weighAll(id, { ...melts, clogMm3S: 9 })
  const page = await benchPage(db, id)
  expect(page.dropped!.compared.dropped).toBe(true)
  expect((await nozzlePage(db, 'N-1')).flow[0]).toMatchObject({
    benchId: id,
    dropped: { difference: expect.any(Number) as number },
  })
  await strike('flow bench', id)
  expect((await nozzlePage(db, 'N-1')).flow[0]).toMatchObject({ dropped: null })
  expect((await benchPage(db, id)).struck).toMatchObject({ reason: 'for the test' })
  expect(await messageOf(weigh(id, 0, 2.9))).toEqual(['benchId', 'This bench is not known, or struck out'])
  expect(await messageOf(end(id))).toEqual(['targetId', 'This bench is struck out'])
})

test('another nozzle on the same head with the same lot stands beside it, pair by pair', async () => {
  const other = await tx(c =>
    addNozzle(c, nozzleSchema.parse({ tag: 'N-9', typeId: shop.typeId, receivedAt: ago(20) }), 1),
  )
  const fit = { kind: 'fit', nozzleId: other.id, headId: shop.headId, occurredAt: next() }
  await tx(c => saveFitting(c, fittingSchema.parse(fit), 1))
  const { id } = await begin()
  await weighAll(id, { ...melts, meltsMm3S: 40 })
  const page = await benchPage(db, id)
  expect(page.beside).toMatchObject([{ nozzle: 'N-1', compared: { verdict: 'better', cells: 4 } }])
  expect(page.limit!.limit).toBe('nothing falls short')
  // and the first one was the nozzle's own doing
  const first = (await listBenches(db)).findLast(b => b.nozzle === 'N-1')!
  expect((await benchPage(db, first.id)).limit!.limit).toBe('this nozzle')
})

test('a level at all flows asks for callipers, then for the mark; a struck measure no longer counts', async () => {
  const { id } = await begin()
  await weighAll(id, { ...melts, meltsMm3S: 60, level: (1.7 / 1.75) ** 2 })
  expect((await benchPage(db, id)).level!.asks.kind).toBe('calliper')
  const measure = (more: object) =>
    tx(c => saveFilamentMeasure(c, filamentMeasureSchema.parse({ benchId: id, occurredAt: next(), ...more }), 1))
  const { id: callipers } = await measure({ callipersMm: [1.7, 1.7, 1.7] })
  expect((await benchPage(db, id)).level!.asks).toMatchObject({
    kind: 'diameter',
    mm: expect.closeTo(1.7, 6) as number,
  })
  await strike('filament measure', callipers)
  await measure({ callipersMm: [1.75, 1.75, 1.74] })
  expect((await benchPage(db, id)).level!.asks.kind).toBe('mark')
  await measure({ mark: { toldMm: 100, fedMm: 94.5 } })
  expect((await benchPage(db, id)).level!.asks.kind).toBe('steps')
  expect(await messageOf(measure({ callipersMm: [2.85, 2.85, 2.85] }))).toEqual([
    'callipersMm',
    expect.stringContaining('Is it the same filament'),
  ])
})

test('what may not be heated, weighed or begun is refused at its field', async () => {
  const parse = (more: object) => benchSchema.safeParse({ ...set, occurredAt: ago(0), ...more })
  expect(parse({ flowsMm3S: [8, 10, 100] }).error!.issues[0]).toMatchObject({ path: ['flowsMm3S', 2] })
  expect(parse({ flowsMm3S: [8, 8, 9] }).error!.issues[0]!.message).toContain('twice')
  expect(parse({ lengthMm: 500 }).error!.issues[0]).toMatchObject({ path: ['lengthMm'] })
  expect(parse({ repeats: 5, temperaturesC: [250, 260, 270, 280] }).error!.issues[0]!.message).toContain('80 blobs')
  expect(
    blobSchema.safeParse({ benchId: 1, line: 0, grossG: 4, panG: 4.3, occurredAt: ago(0) }).error!.issues[0],
  ).toMatchObject({
    path: ['grossG'],
    message: expect.stringContaining('Not heavier than the empty pan') as string,
  })
  const plan = await benchPlan(db, shop.headId, spool.id)
  expect(plan.hottestC).toBeLessThanOrEqual(Math.min(plan.limits.ceilingSetC!, plan.limits.shortMaxC!))
  expect(await messageOf(begin({ temperaturesC: [265, plan.hottestC! + 1] }))).toEqual([
    'temperaturesC.1',
    expect.stringMatching(/is more than/),
  ])
  // S-1 is of a material that nobody gave a short-time maximum
  expect(await messageOf(begin({ spoolId: shop.spoolId }))).toEqual([
    'temperaturesC.0',
    expect.stringContaining('no short-time maximum'),
  ])
  expect(await messageOf(begin({ balanceStepG: 0.1 }))).toEqual(['balanceStepG', expect.stringContaining('1.4 %')])
  const { id } = await begin()
  await weigh(id, 0, 6, { panG: 3 })
  expect(await messageOf(weigh(id, 0, 6, { panG: 3 }))).toEqual(['line', expect.stringContaining('weighed already')])
  expect(await messageOf(weigh(id, 1, 6, { panG: 3.2 }))).toEqual(['panG', expect.stringContaining('read 3 g before')])
  expect(await messageOf(weigh(id, 1, 3.5, { panG: 3 }))).toEqual(['grossG', expect.stringContaining('17 %')])
  await end(id, 'stopped early')
  const tag = { printerId: shop.printerId, why: 'a wire is frayed', must: ['wiring mended'], occurredAt: ago(0) }
  await tx(c => saveServiceTag(c, serviceTagSchema.parse(tag), 1))
  expect(await messageOf(begin())).toEqual(['headId', expect.stringContaining('Out of service')])
})

test('two blobs at once into one line: one stands', async () => {
  const tags = await db.execute<{ id: number }>(sql`select id from standing_service_tags where outcome is null`)
  for (const t of tags)
    await tx(c =>
      saveStrike(c, { target: 'out of service', targetId: Number(t.id), reason: 'for the test', confirmed: [] }, 1),
    )
  const { id } = await begin()
  const both = await Promise.allSettled([weigh(id, 0, nominal), weigh(id, 0, nominal)])
  expect(both.filter(b => b.status === 'fulfilled')).toHaveLength(1)
  expect((await benchPage(db, id)).weighed).toBe(1)
})
