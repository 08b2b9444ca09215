/** A bore that nobody expected: asked before it is stored, and every answer does what it says. */
import { expect, test } from 'vitest'
import { saveGauge } from '../../server/records/nozzles/gauges'
import { nozzlePage, addNozzle } from '../../server/records/nozzles/nozzles'
import { addNozzleType } from '../../server/records/nozzles/types'
import { gaugeSchema, nozzleSchema, nozzleTypeSchema } from '#shared/entries/nozzles'
import type { Connection } from '../../server/db/client'
import { ago, freshDatabase, refusal, smallShop, typeEntry } from './support'

const { db } = await freshDatabase()
const shop = await smallShop(db)
const tx = <T>(work: (c: Connection) => Promise<T>) => db.transaction(work)
let next = 10
const newNozzle = async (more: object = {}) =>
  await tx(c =>
    addNozzle(c, nozzleSchema.parse({ tag: `N-${next++}`, typeId: shop.typeId, receivedAt: ago(20), ...more }), 1),
  )
const gauge = (nozzleId: number, more: object) =>
  tx(c => saveGauge(c, gaugeSchema.parse({ nozzleId, occurredAt: ago(1), ...more }), 1))
const question = async (work: Promise<unknown>) =>
  (await refusal(work)).questions!.find(q => q.code === 'unexpected-bore')!

test('it says what was expected and how unlikely the reading is, and stores nothing', async () => {
  const n = await newNozzle()
  const q = await question(gauge(n.id, { goMm: 0.49, noGoMm: 0.5 }))
  expect(q.message).toMatch(/By a new nozzle of its kind, N-\d+ should be 0\.4 mm now \(95 % between 0\.38 and 0\.42\)/)
  expect(q.choices!.map(c => c.label)).toEqual(
    expect.arrayContaining([
      'It is a 0.5 nozzle: record it as hardened steel 0.5',
      'A pin or a figure was misread: gauge it again',
      'Another nozzle was in hand: choose which',
      'It is as read: keep it',
    ]),
  )
  expect(q.choices!.filter(c => c.label.startsWith('It is a ')).map(c => c.label)).toEqual([
    'It is a 0.5 nozzle: record it as hardened steel 0.5',
  ])
  expect((await nozzlePage(db, n.tag)).gaugePoints).toEqual([])
  // no bore that is sold reads so: none is offered
  expect(
    (await question(gauge(n.id, { valueMm: 0.7, uMm: 0.002 }))).choices!.filter(c => c.label.startsWith('It is a ')),
  ).toEqual([])
})

test('what a technician finds usual is not asked', async () => {
  const n = await newNozzle()
  await gauge(n.id, { goMm: 0.42, noGoMm: 0.43 })
  expect((await question(gauge((await newNozzle()).id, { goMm: 0.43, noGoMm: 0.44 }))).code).toBe('unexpected-bore')
})

test('choices that the form does are no answers', async () => {
  const n = await newNozzle()
  expect(
    await question(
      gauge(n.id, { goMm: 0.49, noGoMm: 0.5, confirmed: ['unexpected-bore:again', 'unexpected-bore:other-nozzle'] }),
    ),
  ).toBeTruthy()
})

test(
  'recorded as another bore: its type, nominal and limit change with it, and the type is made when there ' + 'is none',
  async () => {
    const n = await newNozzle()
    await gauge(n.id, { goMm: 0.49, noGoMm: 0.5, confirmed: ['unexpected-bore:bore:0.5'] })
    const page = await nozzlePage(db, n.tag)
    expect(page.type).toMatchObject({
      name: 'hardened steel 0.5',
      nominalBoreMm: 0.5,
      material: 'hardened steel',
      basis: 'practice',
    })
    expect(page.nozzle.note).toContain('Recorded as hardened steel 0.4 until the gauge of')
    expect(page.input.rules.boreLimitMm).toBeCloseTo(0.55, 9)
    expect(page.forecast.pastChance).toBeLessThan(0.02)
    // the next one finds the type there
    const other = await newNozzle()
    const q = await question(gauge(other.id, { valueMm: 0.498, uMm: 0.003 }))
    const code = q.choices!.find(c => c.label.startsWith('It is a 0.5 nozzle'))!.code
    expect(code).toMatch(/^unexpected-bore:type:\d+$/)
    await gauge(other.id, { valueMm: 0.498, uMm: 0.003, confirmed: [code] })
    expect((await nozzlePage(db, other.tag)).type.name).toBe('hardened steel 0.5')
  },
)

test('a type of another material, a bore nobody sells, and a bare yes are no answers: it is asked again', async () => {
  const n = await newNozzle()
  const brass = await tx(c =>
    addNozzleType(c, nozzleTypeSchema.parse({ ...typeEntry('brass 0.5', 'brass'), nominalBoreMm: 0.5 }), 1),
  )
  for (const answer of ['', `:type:${brass.id}`, ':bore:0.45', ':bore:NaN', ':bore:-1', ':bore:1.2', ':again']) {
    const confirmed = ['unexpected-bore', `unexpected-bore${answer}`]
    expect((await question(gauge(n.id, { goMm: 0.49, noGoMm: 0.5, confirmed }))).code, answer).toBe('unexpected-bore')
  }
  expect((await nozzlePage(db, n.tag)).type.name).toBe('hardened steel 0.4')
})

test('an earlier gauge that was wrong is named and struck out', async () => {
  const n = await newNozzle()
  const wrong = await gauge(n.id, { goMm: 0.4, noGoMm: 0.41, occurredAt: ago(9) })
  const q = await question(gauge(n.id, { goMm: 0.42, noGoMm: 0.43 }))
  const choice = q.choices!.find(c => c.code === `unexpected-bore:strike:${wrong.gaugeId}`)!
  expect(choice.hint).toContain('0.4 goes, 0.41 does not')
  await gauge(n.id, { goMm: 0.42, noGoMm: 0.43, confirmed: [choice.code] })
  const page = await nozzlePage(db, n.tag)
  expect(page.record.find(r => r.kind === 'gauge' && r.id === wrong.gaugeId)!.struck!.reason).toContain('Misread')
  expect(page.forecast.bore.median).toBeGreaterThan(0.42)
})

test('kept as read: it counts, and widens the range', async () => {
  const n = await newNozzle()
  await gauge(n.id, { goMm: 0.4, noGoMm: 0.41, occurredAt: ago(9) })
  const before = (await nozzlePage(db, n.tag)).forecast.bore
  await gauge(n.id, { goMm: 0.42, noGoMm: 0.43, confirmed: ['unexpected-bore:as-read'] })
  const after = (await nozzlePage(db, n.tag)).forecast.bore
  expect(after.high95 - after.low95).toBeGreaterThan(1.4 * (before.high95 - before.low95))
})

test('one that the others outweigh says so: before it is kept, when it is, and on the page', async () => {
  const n = await newNozzle()
  for (const days of [9, 8, 7]) await gauge(n.id, { goMm: 0.4, noGoMm: 0.41, occurredAt: ago(days) })
  const q = await question(gauge(n.id, { goMm: 0.45, noGoMm: 0.46 }))
  expect(q.choices!.find(c => c.code.endsWith(':as-read'))!.hint).toMatch(/outweigh it/)
  const saved = await gauge(n.id, { goMm: 0.45, noGoMm: 0.46, confirmed: ['unexpected-bore:as-read'] })
  expect(saved.outweighed).toBe(true)
  const page = await nozzlePage(db, n.tag)
  expect(page.gaugePoints.filter(g => g.outweighed).map(g => g.id)).toEqual([saved.gaugeId])
})

test('a receipt gauge is asked about as well, and a used nozzle needs none', async () => {
  expect(await question(newNozzle({ receipt: { goMm: 0.59, noGoMm: 0.6 } }))).toBeTruthy()
  const used = await newNozzle({ wasUsed: true })
  const page = await nozzlePage(db, used.tag)
  expect(page.forecast.needsFirstGauge).toBe(true)
  expect(page.forecast.bore.median).toBeCloseTo(0.42, 2)
})
