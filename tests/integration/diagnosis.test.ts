/** Cases from the door to what they say: opened, told by the records, tested, closed, gone on with, struck out. */
import { expect, test } from 'vitest'
import { caseSchema, closingSchema, findingSchema } from '#shared/entries/diagnosis'
import { startWindow } from '#core/limits'
import { gaugeSchema } from '#shared/entries/nozzles'
import { spoolEventSchema, spoolSchema } from '#shared/entries/spools'
import type { Connection } from '../../server/db/client'
import { casePage, listCases } from '../../server/records/diagnosis/cases'
import { addCase, saveClosing, saveFinding } from '../../server/records/diagnosis/save'
import { saveStrike } from '../../server/records/entry/strikes'
import { addMaterial } from '../../server/records/materials/materials'
import { saveGauge } from '../../server/records/nozzles/gauges'
import { saveRun } from '../../server/records/runs/runs'
import { addSpool, saveSpoolEvent } from '../../server/records/spools/spools'
import { ago, freshDatabase, gaugeEntry, materialEntry, refusal, runEntry, smallShop } from './support'

const { db } = await freshDatabase()
const shop = await smallShop(db)
const tx = <T>(work: (c: Connection) => Promise<T>) => db.transaction(work)
const { headId, nozzleId } = shop
const window = startWindow('PA6', 'carbon fibre')!
const material = await tx(c =>
  addMaterial(c, materialEntry('PA6-CF20 with its window', { facts: window.facts, sets: window.sets }), 1),
)
const spool = await tx(c =>
  addSpool(c, spoolSchema.parse({ tag: 'S-7', materialId: material.id, diameterMm: 1.75, netG: 1000, tareG: 200 }), 1),
)
const event = (kind: string, days: number, more: object = {}) =>
  tx(c => saveSpoolEvent(c, spoolEventSchema.parse({ spoolId: spool.id, kind, occurredAt: ago(days), ...more }), 1))
await event('dried', 4, { atC: 70, hours: 12 })
// two days in a humid room
const run = async (days: number, more: object = {}) => {
  const entry = runEntry(shop, { endedAt: ago(days), bedSetC: 100, ...more }, { kind: 'grams', grams: 40 })
  Object.assign(entry.tools[0]!, { setC: 280, spoolId: spool.id, materialId: null })
  return (await tx(c => saveRun(c, entry, 1))).runId
}
const good = await run(3)
const bad = await run(1, { outcome: 'failed', symptoms: ['stringing'] })

let minute = 300
const next = () => ago(minute-- / 1440)
const open = (more: object = {}) =>
  tx(c => addCase(c, caseSchema.parse({ headId, runId: bad, seen: ['stringing'], occurredAt: next(), ...more }), 1))
const find = (caseId: number, kind: string, key: string, state: string) =>
  tx(c => saveFinding(c, findingSchema.parse({ caseId, kind, key, state, occurredAt: next() }), 1))
const close = (caseId: number, more: object = {}) =>
  tx(c =>
    saveClosing(
      c,
      closingSchema.parse({
        caseId,
        cause: 'moisture',
        known: 'by a test',
        how: 'bubbles',
        occurredAt: next(),
        ...more,
      }),
      1,
    ),
  )
const strike = (target: 'case' | 'finding' | 'closing', targetId: number) =>
  tx(c => saveStrike(c, { target, targetId, reason: 'for the test', confirmed: [] }, 1))
const told = async (id: number) =>
  Object.fromEntries((await casePage(db, id)).told.map(t => [t.key, [t.state, t.says]]))
const errorOf = async (work: Promise<unknown>) => {
  const p = await refusal(work)
  const [said] = p.errors ?? p.questions ?? []
  return [said?.field, said?.message]
}

test('a case takes nozzle, spool and filament from its run, and brings what the records know', async () => {
  const { id } = await open()
  const page = await casePage(db, id)
  expect(page).toMatchObject({ place: 'Ribble', spool: 'S-7', material: 'PA6-CF20 with its window', nozzleId })
  expect(page.run).toMatchObject({ id: bad })
  expect(page.seen).toEqual(['stringing'])
  const known = await told(id)
  expect(known['spool wet by its clock']).toEqual(['there', expect.stringContaining('S-7 in the room for')])
  expect(known['setpoint under the window']![0]).toBe('not there')
  expect(known['since the nozzle was changed']![0]).toBe('not there')
  // nothing was benched, no Z was logged, no sensor of this head was checked
  expect(Object.keys(known)).not.toContain('bench dropped since its first')
  expect(Object.keys(known)).not.toContain('head moved or nozzle changed since Z was set')
  expect(known['sensor not checked for long']![1]).toContain('never checked')
  expect(page.answer!.order[0]!.cause).toBe('moisture')
  expect(good).toBeLessThan(bad)
})

test('a person stands over the records, the latest counts, a strike brings back what was before', async () => {
  const { id } = await open()
  const wet = async () => (await casePage(db, id)).answer!.order.find(o => o.cause === 'moisture')!.chance
  const before = await wet()
  await find(id, 'sign', 'spool wet by its clock', 'not there')
  const dry = await wet()
  expect(dry).toBeLessThan(before)
  const again = await find(id, 'sign', 'spool wet by its clock', 'not asked')
  expect(await wet()).toBeGreaterThan(dry)
  expect(await wet()).toBeLessThan(before)
  await strike('finding', again.id)
  expect(await wet()).toBeCloseTo(dry, 12)
})

test('a gauge since the case was opened is the test itself', async () => {
  const { id } = await open({ seen: ['uneven lines'] })
  expect(Object.keys(await told(id))).not.toContain('gauge')
  await tx(c => saveGauge(c, gaugeSchema.parse(gaugeEntry(shop, { goMm: 0.4, noGoMm: 0.41, occurredAt: ago(0) })), 1))
  const known = await told(id)
  expect(known.gauge![0]).toBe('within its limit')
  expect(Object.keys(known)).not.toContain('bore gauged within its limit lately')
})

test('closed by a test that speaks for it, by a repair, or as assumed; and it counts from then on', async () => {
  const { id } = await open()
  expect(await errorOf(close(id))).toEqual([
    'known',
    expect.stringContaining('No test of this case speaks for moisture'),
  ])
  await find(id, 'test', 'lens', 'bubbles in the strand')
  expect(await errorOf(close(id, { cause: 'grip' }))).toEqual(['known', expect.stringContaining('speaks for grip')])
  const repaired = { cause: 'wrong profile', known: 'by a repair', how: 'made anew with its profile' }
  expect((await errorOf(close(id, repaired)))[1]).toContain('No good run is logged on Ribble')
  const startBefore = (await casePage(db, (await open()).id)).start.moisture
  const { id: closing } = await close(id)
  const closed = await casePage(db, id)
  expect(closed.closing).toMatchObject({ id: closing, cause: 'moisture', known: 'by a test' })
  const start = (await casePage(db, (await open()).id)).start
  expect(start.moisture).toBeGreaterThan(startBefore)
  expect(start['something else']).toBeCloseTo(0.1, 9)
  // closed is closed
  expect(await errorOf(find(id, 'sign', 'popping', 'there'))).toEqual(['caseId', expect.stringContaining('is closed')])
  expect((await errorOf(close(id)))[0]).toBe('caseId')
  const { review, cases } = await listCases(db)
  expect(review).toMatchObject({ closed: 1, proved: 1, named: 1, right: 1 })
  expect(cases.find(c => c.id === id)!.answer!.cause).toBe('moisture')
  // struck out it is open again, and teaches nothing
  await strike('closing', closing)
  expect((await listCases(db)).review.closed).toBe(0)
  expect((await casePage(db, id)).struckClosings).toHaveLength(1)
  await find(id, 'sign', 'popping', 'there')
})

test('what a closed case rested on stays as it was', async () => {
  const { id } = await open()
  await close(id, { cause: 'moisture', known: 'assumed', how: 'nobody looked' })
  const before = await casePage(db, id)
  await event('dried', 0.01, { atC: 70, hours: 1 })
  const { id: other } = await open()
  await find(other, 'test', 'lens', 'bubbles in the strand')
  await close(other)
  const after = await casePage(db, id)
  expect(after.told).toEqual(before.told)
  expect(after.start).toEqual(before.start)
  expect(after.answer).toEqual(before.answer)
})

test('two causes: the first is closed, and the case that follows knows that it was put right', async () => {
  const { id } = await open({ seen: ['stringing', 'uneven lines'] })
  expect((await errorOf(open({ afterId: id })))[0]).toBe('afterId')
  await find(id, 'test', 'lens', 'bubbles in the strand')
  const { id: closing } = await close(id)
  const { id: second } = await open({ afterId: id, runId: null, seen: ['uneven lines'] })
  const page = await casePage(db, second)
  expect(page.right).toEqual(['moisture'])
  expect(page).toMatchObject({ run: null, nozzleId, spool: 'S-7' })
  expect((await casePage(db, id)).nextId).toBe(second)
  const withIt = page.answer!.order.find(o => o.cause === 'moisture')!.chance
  await strike('closing', closing)
  const without = await casePage(db, second)
  expect(without.right).toEqual([])
  expect(without.answer!.order.find(o => o.cause === 'moisture')!.chance).toBeGreaterThan(withIt)
})

test('what is refused, at its field', async () => {
  expect(await errorOf(open({ headId: 9999 }))).toEqual(['headId', 'This head is not known'])
  expect((await errorOf(open({ runId: 9999 })))[0]).toBe('runId')
  expect((await errorOf(open({ runId: null, spoolId: 9999 })))[0]).toBe('spoolId')
  expect((await errorOf(open({ picture: 'aGVsbG8=' })))[0]).toBe('picture')
  expect((await errorOf(find(9999, 'sign', 'popping', 'there')))[0]).toBe('caseId')
  const said = (body: object) => {
    const r = caseSchema.safeParse({ headId, occurredAt: ago(0), seen: ['popping'], ...body })
    return r.error?.issues[0]?.path.join('.')
  }
  expect(said({ seen: [] })).toBe('seen')
  expect(said({ not: ['popping'] })).toBe('not')
  expect(said({ seen: ['smoke'] })).toBe('seen.0')
  const finding = (body: object) =>
    findingSchema.safeParse({ caseId: 1, kind: 'test', key: 'lens', state: 'x', occurredAt: ago(0), ...body }).error!
      .issues[0]!.path
  expect(finding({})).toEqual(['state'])
  expect(finding({ key: 'torch' })).toEqual(['key'])
  expect(finding({ kind: 'sign', key: 'popping', state: 'perhaps' })).toEqual(['state'])
  expect(
    closingSchema.safeParse({ caseId: 1, cause: 'grip', known: 'assumed', how: '', occurredAt: ago(0) }).success,
  ).toBe(false)
})

test('a struck case stays readable, takes nothing more and teaches nothing', async () => {
  const { id } = await open()
  await find(id, 'test', 'lens', 'bubbles in the strand')
  await close(id)
  const before = (await listCases(db)).review.closed
  await strike('case', id)
  expect((await listCases(db)).review.closed).toBe(before - 1)
  expect((await casePage(db, id)).struck).toMatchObject({ reason: 'for the test' })
  expect((await errorOf(find(id, 'sign', 'popping', 'there')))[1]).toContain('struck out')
})

test('a run that cannot be worked with takes no case down', async () => {
  // the run is struck out after the case was opened: the case stays, and says what it can
  const { id } = await open()
  await tx(c => saveStrike(c, { target: 'run', targetId: bad, reason: 'logged twice', confirmed: [] }, 1))
  expect((await casePage(db, id)).run).toMatchObject({ id: bad })
  expect((await listCases(db)).cases.map(c => c.id)).toContain(id)
  expect((await errorOf(open()))[0]).toBe('runId')
})

test('a case that is closed late does not rest on what was found after it', async () => {
  const { id } = await open({ seen: ['uneven lines'], runId: null, occurredAt: ago(0.9) })
  await tx(c => saveGauge(c, gaugeSchema.parse(gaugeEntry(shop, { goMm: 0.4, noGoMm: 0.41, occurredAt: ago(0) })), 1))
  await close(id, { cause: 'grip', known: 'assumed', how: 'tension', occurredAt: ago(0.8) })
  expect(Object.keys(await told(id))).not.toContain('gauge')
})

test('a finding of a sign or test that every object has, and no list names, is refused at its field', () => {
  for (const kind of ['sign', 'test'])
    for (const key of ['__proto__', 'constructor']) {
      const read = findingSchema.safeParse({ caseId: 1, kind, key, state: 'yes', occurredAt: '2026-10-10T01:11:23Z' })
      expect(read.error!.issues[0]!.path, key).toEqual(['key'])
    }
})
