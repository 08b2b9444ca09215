/** Gauge studies from the door to the forecast: the list, its readings, what they set, what a strike leaves. */
import { expect, test } from 'vitest'
import { PIN_U_MM } from '#core/wear'
import { mulberry32, normalDraw } from '#core/numeric'
import { nozzleSchema } from '#shared/entries/nozzles'
import { setupFields } from '#shared/entries/pictures'
import { studyReadingSchema, studySchema } from '#shared/entries/studies'
import type { Connection } from '../../server/db/client'
import { saveStrike } from '../../server/records/entry/strikes'
import { refreshStale } from '../../server/records/nozzles/forecasts'
import { saveGauge } from '../../server/records/nozzles/gauges'
import { addNozzle, nozzlePage } from '../../server/records/nozzles/nozzles'
import { addSetup } from '../../server/records/pictures/setups'
import { addPerson } from '../../server/records/shop/people'
import { addStudy, listStudies, saveStudyReading, studyTurn } from '../../server/records/studies/studies'
import { pictured } from './picture-support'
import { ago, freshDatabase, gaugeEntry, refusal, smallShop } from './support'

const { db } = await freshDatabase()
const shop = await smallShop(db)
const tx = <T>(work: (c: Connection) => Promise<T>) => db.transaction(work)
const second = await tx(c => addPerson(c, { name: 'Second pair of hands', role: 'technician', outOfUse: false }))
const nozzle = (tag: string) =>
  tx(c => addNozzle(c, nozzleSchema.parse({ tag, typeId: shop.typeId, receivedAt: ago(90) }), 1))
const others = [await nozzle('N-2'), await nozzle('N-3')]
const nozzleIds = [shop.nozzleId, ...others.map(n => n.id)]
const setup = await tx(c => addSetup(c, setupFields.parse({ name: 'Microscope' }), 1))
const plan = { personIds: [1, second.id], nozzleIds, repeats: 2, occurredAt: ago(2) }
const begin = (more: Record<string, unknown>) =>
  tx(c => addStudy(c, studySchema.parse({ name: 'Who finds what', method: 'pins', ...plan, ...more }), 1))
const reading = (studyId: number, line: number, more: Record<string, unknown>) =>
  tx(c => saveStudyReading(c, studyReadingSchema.parse({ studyId, line, occurredAt: ago(1), ...more }), 1))
const list = async (id: number) => (await listStudies(db)).find(s => s.id === id)!
const strike = (target: 'study' | 'study reading', targetId: number) =>
  tx(c => saveStrike(c, { target, targetId, reason: 'for the test', confirmed: [] }, 1))
const refreshed = async () => {
  while ((await refreshStale(db)) > 0);
  return nozzlePage(db, 'N-1')
}
const width = (p: Awaited<ReturnType<typeof refreshed>>) => p.forecast.bore.high80 - p.forecast.bore.low80

/** The same error for the same line of any list, whatever its order: standard normal. */
const error = (l: { personId: number; nozzleId: number; round: number }, seed: number) =>
  normalDraw(mulberry32(seed + 1000 * l.personId + 100 * nozzleIds.indexOf(l.nozzleId) + l.round))

test('the list is drawn once, whole, and says whose turn it is', async () => {
  const { id } = await begin({})
  const s = await list(id)
  expect(s.lines).toHaveLength(12)
  expect(new Set(s.lines.map(l => `${l.personId} ${l.nozzleId} ${l.round}`)).size).toBe(12)
  expect(s.lines.map(l => l.round)).toEqual([...Array<number>(6).fill(0), ...Array<number>(6).fill(1)])
  const turn = (await studyTurn(db))!
  expect([turn.line, turn.lines, turn.nozzleId]).toEqual([0, 12, s.lines[0]!.nozzleId])
  await strike('study', id)
  expect(await studyTurn(db)).toBeNull()
  expect((await list(id)).struck!.reason).toBe('for the test')
})

test('what a study cannot be is refused at its field', async () => {
  const parse = (more: Record<string, unknown>) =>
    studySchema.safeParse({ name: 'x', method: 'pins', ...plan, ...more }).error?.issues.map(i => i.path[0])
  expect(parse({ nozzleIds: [1] })).toEqual(['nozzleIds'])
  expect(parse({ personIds: [1, 1] })).toEqual(['personIds'])
  expect(parse({ repeats: 1 })).toEqual(['repeats'])
  expect(parse({ method: 'picture' })).toEqual(['setupId'])
  expect(parse({ personIds: [1, 2, 3, 4, 5, 6], nozzleIds: [1, 2, 3, 4, 5, 6, 7, 8], repeats: 10 })).toEqual([
    'repeats',
  ])
  expect((await refusal(begin({ nozzleIds: [1, 999] }))).errors![0]!.field).toBe('nozzleIds')
  expect((await refusal(begin({ personIds: [1, 999] }))).errors![0]!.field).toBe('personIds')
  const read = (more: Record<string, unknown>) =>
    studyReadingSchema
      .safeParse({ studyId: 1, line: 0, occurredAt: ago(1), ...more })
      .error?.issues.map(i => String(i.path[0]))
  expect(read({ goMm: 0.42 })).toEqual(['noGoMm'])
  expect(read({ goMm: 0.42, noGoMm: 0.41 })).toEqual(['goMm'])
  expect(read({})).toEqual(['goMm'])
  expect(read({ valueMm: 0.4, goMm: 0.4 })).toEqual(['valueMm'])
})

test('a line takes one reading of its method; what is far off is asked', async () => {
  const { id } = await begin({})
  const done = await reading(id, 0, { goMm: 0.41, noGoMm: 0.42 })
  expect(done).toMatchObject({ left: 11, setsMm: null, beforeMm: null, nozzles: 0 })
  expect((await refusal(reading(id, 0, { goMm: 0.41, noGoMm: 0.42 }))).errors![0]!.message).toMatch(/Line 1 has its/)
  expect((await refusal(reading(id, 12, { goMm: 0.41, noGoMm: 0.42 }))).errors![0]!.message).toMatch(/12 lines/)
  expect((await refusal(reading(id, 1, { valueMm: 0.41 }))).errors![0]!.field).toBe('goMm')
  expect((await refusal(reading(id, 1, { goMm: 0.81, noGoMm: 0.82 }))).questions![0]!.code).toBe('far-off')
  await reading(id, 1, { goMm: 0.81, noGoMm: 0.82, confirmed: ['far-off'] })
  const [first] = (await list(id)).lines.map(l => l.reading)
  await strike('study reading', first!.id)
  const after = await list(id)
  expect(after.lines[0]!.reading).toBeNull()
  expect(after.struckReadings[0]).toMatchObject({ line: 0, goMm: 0.41, struck: { reason: 'for the test' } })
  await reading(id, 0, { goMm: 0.42, noGoMm: 0.43 })
  await strike('study', id)
  expect((await refusal(reading(id, 2, { goMm: 0.4, noGoMm: 0.41 }))).errors![0]!.field).toBe('studyId')
})

test('pins: the last line sets the scatter of the decision, forecasts go by it, a strike takes it back', async () => {
  await tx(c => saveGauge(c, gaugeEntry(shop, { goMm: 0.41, noGoMm: 0.42 }), 1))
  const before = await refreshed()
  expect(before.scatter.pinsMm).toBeNull()
  const { id } = await begin({})
  const bores = new Map(nozzleIds.map((n, i) => [n, 0.405 + 0.011 * i]))
  const { lines } = await list(id)
  let done = { setsMm: null as number | null, nozzles: 0 }
  for (const [i, l] of lines.entries()) {
    const goMm = Math.floor((bores.get(l.nozzleId)! + 0.012 * error(l, 3)) / 0.01) / 100
    done = await reading(id, i, { goMm, noGoMm: goMm + 0.01, confirmed: ['far-off'] })
    expect(done.setsMm === null).toBe(i < lines.length - 1)
  }
  expect(done.setsMm).toBeGreaterThan(0.005)
  expect(done.nozzles).toBe(1)
  expect(await list(id)).toMatchObject({ counts: true, setsMm: done.setsMm })
  // before the background has caught up the page works it out itself
  expect((await nozzlePage(db, 'N-1')).stale).toBe(true)
  const after = await refreshed()
  expect(after.scatter.pinsMm).toBe(done.setsMm)
  expect(after.input.bore.observations.at(-1)).toMatchObject({ uMm: PIN_U_MM, uRandomMm: done.setsMm })
  expect(width(after)).toBeGreaterThan(1.01 * width(before))
  const last = (await list(id)).lines[11]!.reading!
  await strike('study reading', last.id)
  expect(width(await refreshed())).toBeCloseTo(width(before), 9)
  await reading(id, 11, { goMm: last.goMm, noGoMm: last.noGoMm, confirmed: ['far-off'] })
  expect(width(await refreshed())).toBeCloseTo(width(after), 9)
  await strike('study', id)
  expect(width(await refreshed())).toBeCloseTo(width(before), 9)
})

test('pictures: the random part of that set-up alone, and never under what hides this very edge', async () => {
  const target = others[0]!.id
  const save = (mm: number, hiddenUm: number) => {
    const p = pictured(setup.id, mm, { sharedMm: 0.001, uMm: 0.0013 })
    const picture = { ...p.picture, budget: { ...p.picture.budget, hiddenUm } }
    return tx(c => saveGauge(c, gaugeEntry(shop, { ...p, picture, nozzleId: target }), 1))
  }
  await save(0.404, 0)
  await save(0.405, 9)
  const { id } = await begin({ method: 'picture', setupId: setup.id })
  const { lines } = await list(id)
  let sets: number | null = null
  for (const [i, l] of lines.entries()) {
    const valueMm = 0.405 + 0.01 * nozzleIds.indexOf(l.nozzleId) + 0.004 * error(l, 8)
    sets = (await reading(id, i, { valueMm })).setsMm
  }
  expect(sets).toBeGreaterThan(0.002)
  expect(sets).toBeLessThan(0.009)
  await refreshed()
  const { input, scatter } = await nozzlePage(db, 'N-2')
  expect(scatter).toEqual({ pinsMm: null, setups: [{ setupId: setup.id, mm: sets }] })
  const [plain, hidden] = input.bore.observations.map(o => o.uMm)
  expect(plain).toBeCloseTo(sets!, 9)
  expect(hidden).toBeCloseTo(0.009, 9)
  // the same study again, later and tighter: the latest counts
  const again = await begin({ method: 'picture', setupId: setup.id, occurredAt: ago(0.5) })
  const later = (await list(again.id)).lines
  for (const [i, l] of later.entries())
    await reading(again.id, i, { valueMm: 0.405 + 0.01 * nozzleIds.indexOf(l.nozzleId) + 0.0005 * error(l, 5) })
  expect((await listStudies(db)).filter(s => s.counts).map(s => s.id)).toEqual([again.id])
})
