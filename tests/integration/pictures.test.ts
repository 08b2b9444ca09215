/** Picture gauges from the door to the forecast: set-ups, scales, crops, what is refused, what a strike leaves. */
import { expect, test } from 'vitest'
import { CROP_BYTES } from '#shared/choices'
import { scaleSchema, setupFields } from '#shared/entries/pictures'
import { gaugeSchema, nozzleSchema } from '#shared/entries/nozzles'
import { editRecord } from '../../server/records/entry/edits'
import { saveStrike } from '../../server/records/entry/strikes'
import { saveGauge } from '../../server/records/nozzles/gauges'
import { addNozzle, nozzlePage } from '../../server/records/nozzles/nozzles'
import { boreForStage } from '../../server/records/nozzles/stage'
import { readBlob } from '../../server/records/pictures/blobs'
import { addSetup, listSetups, saveScale } from '../../server/records/pictures/setups'
import type { Connection } from '../../server/db/client'
import { cropBase64, pictured } from './picture-support'
import { ago, freshDatabase, gaugeEntry, refusal, smallShop } from './support'

const { db } = await freshDatabase()
const shop = await smallShop(db)
const tx = <T>(work: (c: Connection) => Promise<T>) => db.transaction(work)
const setup = await tx(c => addSetup(c, setupFields.parse({ name: 'Microscope, lens 2' }), 1))
const gauge = (more: Record<string, unknown>) => tx(c => saveGauge(c, gaugeEntry(shop, more), 1))
const page = () => nozzlePage(db, 'N-1')
const errorsOf = (body: Record<string, unknown>) =>
  gaugeSchema
    .safeParse({ nozzleId: shop.nozzleId, occurredAt: ago(1), ...body })
    .error?.issues.map(i => i.path.join('.')) ?? []

test('a set-up with its scales, the latest first; a struck one says why', async () => {
  for (const [umPerPx, hours] of [
    [2.31, 50],
    [2.3, 2],
  ] as const) {
    const scale = { setupId: setup.id, how: 'stage scale', knownMm: 0.01, umPerPx, uUmPerPx: 0.002 }
    await tx(c => saveScale(c, scaleSchema.parse({ ...scale, occurredAt: ago(hours) }), 1))
  }
  const [line] = await listSetups(db)
  expect(line!.scales.map(s => s.umPerPx)).toEqual([2.3, 2.31])
  const strike = { target: 'scale' as const, targetId: line!.scales[0]!.id, reason: 'wrong lens', confirmed: [] }
  await tx(c => saveStrike(c, strike, 1))
  expect((await listSetups(db))[0]!.scales.map(s => s.struck)).toEqual(['wrong lens', null])
  const unknown = tx(c =>
    saveScale(c, scaleSchema.parse({ setupId: 99, how: 'pin', umPerPx: 2, uUmPerPx: 0, occurredAt: ago(1) }), 1),
  )
  expect((await refusal(unknown)).errors).toEqual([{ field: 'setupId', message: 'This set-up is not known' }])
})

test('a picture moves the forecast, is kept once, and leaves everything when it is struck out', async () => {
  const before = (await page()).forecast.bore
  const first = await gauge(pictured(setup.id, 0.404))
  await gauge(pictured(setup.id, 0.4044))
  const after = await page()
  expect(after.forecast.bore.high80 - after.forecast.bore.low80).toBeLessThan(before.high80 - before.low80)
  const [a, b] = after.gaugePoints.filter(g => g.picture !== null)
  expect(a!.setup).toBe('Microscope, lens 2')
  expect(a!.blob).toBe(b!.blob)
  expect(a!.picture!.crop).toEqual({ umPerPx: 40, x: 6, y: 6 })
  const { type, bytes } = await readBlob(db, a!.blob!)
  expect([type, bytes.toString('base64')]).toEqual(['image/png', cropBase64()])
  expect((await listSetups(db))[0]!.gauges).toBe(2)
  const second = after.gaugePoints.find(g => g.id !== first.gaugeId && g.picture)!
  for (const targetId of [first.gaugeId, second.id])
    await tx(c => saveStrike(c, { target: 'gauge', targetId, reason: 'other nozzle', confirmed: [] }, 1))
  expect((await page()).forecast.bore).toEqual(before)
  expect((await listSetups(db))[0]!.gauges).toBe(0)
})

const other = await tx(c =>
  addNozzle(c, nozzleSchema.parse({ tag: 'N-2', typeId: shop.typeId, receivedAt: ago(99) }), 1),
)
const gaugeOther = (more: Record<string, unknown>) =>
  tx(c => saveGauge(c, gaugeEntry(shop, { nozzleId: other.id, ...more }), 1))
const pageOfOther = () => nozzlePage(db, 'N-2')

test('pictures of one set-up are never surer together than the part they share', async () => {
  const width = async () => {
    const { bore } = (await pageOfOther()).forecast
    return bore.high80 - bore.low80
  }
  for (let i = 0; i < 12; i++)
    await gaugeOther(pictured(setup.id, 0.405 + 0.0001 * (i % 3), { sharedMm: 0.004, uMm: 0.0041 }))
  // 80 % of a normal of 4 µm alone is 10 µm wide; the start narrows it a little
  expect(await width()).toBeGreaterThan(0.007)
})

test('pins that find it narrower than the pictures: the difference is said', async () => {
  expect((await pageOfOther()).wider).toEqual([])
  const pins = { goMm: 0.39, noGoMm: 0.395, goPin: 'A', noGoPin: 'B' }
  await gaugeOther({ ...pins, confirmed: ['unexpected-bore:as-read'] })
  await gaugeOther({ ...pins, goPin: 'C', noGoPin: 'D', confirmed: ['unexpected-bore:as-read'] })
  const [wider] = (await pageOfOther()).wider
  expect(wider!.setup).toBe('Microscope, lens 2')
  expect(wider!.meanMm).toBeGreaterThan(0.006)
})

test('what is no picture is refused at its field', async () => {
  const save = (base64: string) => refusal(gauge(pictured(setup.id, 0.404, { base64 })))
  const text = await save(Buffer.from('<svg onload="x">').toString('base64'))
  expect(text.errors![0]!.field).toBe('picture.crop.base64')
  expect(text.errors![0]!.message).toMatch(/no JPEG, PNG or WebP/)
  const long = 'A'.repeat(Math.ceil((CROP_BYTES * 4) / 3) + 8)
  expect(errorsOf(pictured(1, 0.4, { base64: long }))).toContain('picture.crop.base64')
  expect(errorsOf(pictured(1, 0.4, { base64: 'not base64!' }))).toContain('picture.crop.base64')
  expect(errorsOf({ ...pictured(1, 0.4), valueMm: null, uMm: null })).toContain('valueMm')
  expect(errorsOf(pictured(1, 0.4, { sharedMm: 0.01, uMm: 0.002 }))).toContain('uMm')
  expect((await refusal(readBlob(db, 'f'.repeat(64)))).status).toBe(404)
  expect((await refusal(readBlob(db, '../etc'))).status).toBe(404)
})

test('a set-up no longer in use takes no pictures', async () => {
  const { version } = (await listSetups(db))[0]!
  await tx(c => editRecord(c, 'setups', setup.id, version, { withdrawn: true }, 1))
  const refused = await refusal(gauge(pictured(setup.id, 0.404)))
  expect(refused.errors![0]!.field).toBe('picture.setupId')
})

test('a bare yes does not say which of the meanings an unexpected bore has', async () => {
  const asked = await refusal(gauge({ goMm: 0.49, noGoMm: 0.5, confirmed: ['unexpected-bore'] }))
  expect(asked.questions!.map(q => q.code)).toEqual(['unexpected-bore'])
})

test('the stand-in microscope gets a mouth that is a little wider than the bore', async () => {
  const { boreMm, nominalMm } = await boreForStage(db, shop.nozzleId)
  expect(nominalMm).toBe(0.4)
  expect(boreMm).toBeGreaterThan(0.37)
  expect((await refusal(boreForStage(db, 999))).status).toBe(404)
})
