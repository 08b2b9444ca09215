/** Machine, shop and database in three zones: what is typed on the shop's clock is what every answer tells. */
import { afterAll, expect, test } from 'vitest'
import { fromField, toField } from '#shared/time'
import { spoolEventSchema, spoolSchema } from '#shared/entries/spools'
import { connect } from '../../server/db/client'
import { listNozzles } from '../../server/records/nozzles/nozzles'
import { listRuns, saveRun } from '../../server/records/runs/runs'
import { addSpool, saveSpoolEvent } from '../../server/records/spools/spools'
import { spoolPage } from '../../server/records/spools/page'
import { freshDatabase, refusal, runEntry, smallShop } from './support'

const SHOP = 'Europe/London'
const machine = process.env.TZ
process.env.TZ = 'America/New_York'
const { db, client, url } = await freshDatabase()
const shop = await smallShop(db)
const [{ name }] = (await client`select current_database() name`) as unknown as [{ name: string }]
await client.unsafe(`alter database ${name} set timezone to 'Asia/Tokyo'`)
const later = connect(url, { max: 2 })
const reading = later.db
afterAll(async () => {
  await later.client.end({ timeout: 2 })
  if (machine === undefined) delete process.env.TZ
  else process.env.TZ = machine
})

test('the database’s own clock is elsewhere', async () => {
  const [row] = await later.client`select current_setting('timezone') z`
  expect(row).toEqual({ z: 'Asia/Tokyo' })
})

test.each(['2026-03-29T00:30', '2026-03-29T02:30', '2026-10-25T00:30', '2026-10-25T02:30'])(
  '%s on the shop’s clock comes back as it was typed',
  async typed => {
    const endedAt = fromField(typed, SHOP)!
    await reading.transaction(tx =>
      saveRun(tx, runEntry(shop, { endedAt, confirmed: ['not-fitted:0', `over-spool:${shop.spoolId}`] }), 1),
    )
    const { runs } = await listRuns(reading, 200, null)
    expect(runs.map(r => r.endedAt)).toContain(endedAt)
    expect(runs.map(r => toField(r.endedAt, SHOP))).toContain(typed)
    for (const n of await listNozzles(reading)) expect(n.lastGaugedAt ?? 'Z').toMatch(/Z$/)
  },
)

test('a refusal carries the ISO time, for the page to word', async () => {
  const entry = { tag: 'S-Z', materialId: shop.materialId, diameterMm: 1.75, netG: 1000 }
  const { id } = await reading.transaction(tx => addSpool(tx, spoolSchema.parse(entry), 1))
  const event = (more: object) => spoolEventSchema.parse({ spoolId: id, ...more })
  const at = fromField('2026-10-25T12:00', SHOP)!
  await reading.transaction(tx => saveSpoolEvent(tx, event({ kind: 'out', occurredAt: at }), 1))
  const dried = event({ kind: 'dried', hours: 5, atC: 70, occurredAt: fromField('2026-10-25T14:00', SHOP)! })
  const p = await refusal(reading.transaction(tx => saveSpoolEvent(tx, dried, 1)))
  expect(p.errors![0]!.message).toContain(at)
  expect((await spoolPage(reading, 'S-Z')).events[0]!.at).toBe(at)
})
