/** Several people at once: nothing is lost, nothing locks up, and the lists show all of it. */
import { sql } from 'drizzle-orm'
import { expect, test } from 'vitest'
import { EARLIER_RUNS } from '#shared/choices'
import { changeSchema, fittingSchema } from '#shared/entries/printers'
import { nozzleSchema } from '#shared/entries/nozzles'
import { spoolEventSchema } from '#shared/entries/spools'
import { once } from '../../server/records/entry/answers'
import { saveFitting } from '../../server/records/printers/fittings'
import { refreshMissing, refreshStale } from '../../server/records/nozzles/forecasts'
import { saveGauge } from '../../server/records/nozzles/gauges'
import { shop as wholeShop } from '../../server/records/shop/shop'
import { listNozzles, addNozzle } from '../../server/records/nozzles/nozzles'
import { saveRun } from '../../server/records/runs/runs'
import { saveSpoolEvent } from '../../server/records/spools/spools'
import { listStacks } from '../../server/records/printers/stack-read'
import { saveChange } from '../../server/records/printers/stack-change'
import { addPerson } from '../../server/records/shop/people'
import { editRecord } from '../../server/records/entry/edits'
import { ago, freshDatabase, gaugeEntry, materialEntry, refusal, runEntry, smallShop } from './support'

const { db } = await freshDatabase()
const shop = await smallShop(db)
const nozzles: number[] = []
for (let i = 2; i <= 7; i++)
  nozzles.push(
    (
      await db.transaction(tx =>
        addNozzle(tx, nozzleSchema.parse({ tag: `N-${i}`, typeId: shop.typeId, receivedAt: ago(20) }), 1),
      )
    ).id,
  )

test('twelve runs on one nozzle at once: all are counted', async () => {
  await Promise.all(
    Array.from({ length: 12 }, (_, i) => {
      const body = runEntry(shop, { confirmed: ['same-run:0'] }, { kind: 'grams', grams: 10 })
      return once(db, { key: `together-${i}`, route: '/api/runs', body, personId: 1 }, tx => saveRun(tx, body, 1))
    }),
  )
  const [n] = await listNozzles(db)
  expect(n).toMatchObject({ tag: 'N-1', fibreG: expect.closeTo(24, 6) })
})

test('one run logged by two people at once: the second is asked', async () => {
  const twice = () =>
    db.transaction(tx => saveRun(tx, runEntry(shop, { endedAt: ago(3) }, { kind: 'grams', grams: 77 }), 1))
  const results = await Promise.allSettled([twice(), twice()])
  expect(results.map(r => r.status).sort()).toEqual(['fulfilled', 'rejected'])
  expect((await refusal(twice())).questions![0]).toMatchObject({ code: 'same-run:0' })
})

test('gauges on six sisters at once, with the background at work: no deadlock, nothing stale in the end', async () => {
  await Promise.all(
    nozzles.map((nozzleId, i) =>
      db.transaction(tx =>
        saveRun(
          tx,
          runEntry(
            { ...shop, nozzleId },
            { confirmed: ['not-fitted:0', 'over-spool:1'], endedAt: ago(1.5 - i / 10) },
            { kind: 'grams', grams: 500 },
          ),
          1,
        ),
      ),
    ),
  )
  await Promise.all([
    ...nozzles.map((nozzleId, i) =>
      db.transaction(tx =>
        saveGauge(
          tx,
          gaugeEntry(
            { ...shop, nozzleId },
            { goMm: 0.4 + i / 100, noGoMm: 0.41 + i / 100, confirmed: ['unexpected-bore:as-read'] },
          ),
          1,
        ),
      ),
    ),
    refreshStale(db),
    refreshStale(db),
  ])
  while ((await refreshStale(db)) > 0);
  const [stale] = await db.execute<{ n: number; sisters: number }>(
    sql`select count(*) filter (where stale)::int n, max((detail->>'sisters')::int) sisters from forecasts`,
  )
  expect(stale).toEqual({ n: 0, sisters: 6 })
})

test('forecasts can be thrown away and come back the same', async () => {
  const print = () =>
    db.execute(
      sql`select nozzle_id, round(left_kg::numeric, 9)::text l, round(past_chance::numeric, 9)::text p, basis
        from forecasts order by nozzle_id`,
    )
  await db.execute(sql`update forecasts set stale = true`)
  await refreshStale(db)
  const before = await print()
  await db.execute(sql`delete from forecasts`)
  expect(await refreshMissing(db)).toBe(7)
  await db.execute(sql`update forecasts set stale = true`)
  await refreshStale(db)
  expect([...(await print())]).toEqual([...before])
})

test('two fit different nozzles to one head at once: one ends on it, the other on the shelf', async () => {
  await Promise.all(
    [nozzles[0]!, nozzles[1]!].map(nozzleId =>
      db.transaction(tx =>
        saveFitting(tx, fittingSchema.parse({ kind: 'fit', nozzleId, headId: shop.headId, occurredAt: ago(0.1) }), 1),
      ),
    ),
  )
  const all = await listNozzles(db)
  expect(all.filter(n => n.headId === shop.headId)).toHaveLength(1)
  expect(all.find(n => n.tag === 'N-1')!.place).toBeNull()
})

test('a fitting entered late makes way for the one that followed it', async () => {
  const from = Date.parse(ago(0.07))
  const fit = (nozzleId: number, afterMs: number) =>
    db.transaction(tx =>
      saveFitting(
        tx,
        fittingSchema.parse({
          kind: 'fit',
          nozzleId,
          headId: shop.headId,
          occurredAt: new Date(from + afterMs).toISOString(),
          confirmed: ['worn-out'],
        }),
        1,
      ),
    )
  await fit(nozzles[2]!, 1000)
  await fit(nozzles[3]!, 0) // happened before, entered after
  const all = await listNozzles(db)
  expect(all.filter(n => n.headId === shop.headId).map(n => n.id)).toEqual([nozzles[2]])
  const [came] = await db.execute<{ n: number }>(
    sql`select count(*)::int n from fittings where nozzle_id = ${nozzles[3]} and kind = 'remove'
      and reason = 'another was fitted'`,
  )
  expect(came!.n).toBe(1)
  const onHead = async () =>
    (await wholeShop(db)).printers.flatMap(p => p.heads).find(h => h.id === shop.headId)!.nozzleId
  expect(await onHead()).toBe(nozzles[2])
  await fit(nozzles[4]!, 998) // two milliseconds before the one that is there
  expect(await onHead()).toBe(nozzles[2])
  await fit(nozzles[5]!, 5000)
  expect(await onHead()).toBe(nozzles[5])
  expect((await listNozzles(db)).filter(n => n.headId === shop.headId).map(n => n.id)).toEqual([nozzles[5]])
})

test('ten people change one printer at once: every change is stored, no part is lost', async () => {
  const before = (await listStacks(db, [shop.printerId]))[0]!.parts.length
  await Promise.all(
    Array.from({ length: 10 }, (_, i) => {
      const body = changeSchema.parse({
        printerId: shop.printerId,
        text: `part ${i}`,
        occurredAt: ago(0.001),
        add: [{ kind: 'other chamber part', limitC: 90 + i }],
      })
      return once(db, { key: `change-by-${i}`, route: '/api/changes', body, personId: 1 }, tx =>
        saveChange(tx, body, 1),
      )
    }),
  )
  expect((await listStacks(db, [shop.printerId]))[0]!.parts).toHaveLength(before + 10)
  const chamber = (await wholeShop(db)).printers
    .find(p => p.id === shop.printerId)!
    .limits.find(l => l.zone === 'chamber')!
  expect(chamber.limitC).toBe(65)
})

test('the same change sent again under its key is stored once', async () => {
  const body = changeSchema.parse({
    printerId: shop.printerId,
    text: 'sent twice',
    occurredAt: ago(0.001),
    add: [{ kind: 'bearings' }],
  })
  const send = () =>
    once(db, { key: 'change-sent-twice', route: '/api/changes', body, personId: 1 }, tx => saveChange(tx, body, 1))
  const first = await send(),
    second = await send()
  expect(second).toMatchObject({ repeated: true, answer: JSON.parse(JSON.stringify(first.answer)) as object })
  expect((await listStacks(db, [shop.printerId]))[0]!.parts.filter(p => p.role === 'bearings')).toHaveLength(1)
})

test('two edits of one version: one is taken, one sees both', async () => {
  const edit = (fillerFraction: number) => {
    const values = materialEntry('PA6-CF20', { fillerFraction })
    return db.transaction(tx => editRecord(tx, 'materials', shop.materialId, 1, values, 1, [EARLIER_RUNS.keep]))
  }
  const results = await Promise.allSettled([edit(0.21), edit(0.22)])
  expect(results.map(r => r.status).sort()).toEqual(['fulfilled', 'rejected'])
  expect((await refusal(edit(0.23))).status).toBe(409)
})

test('the lists that forms and strip live on', async () => {
  await db.transaction(tx =>
    saveSpoolEvent(tx, spoolEventSchema.parse({ spoolId: shop.spoolId, kind: 'out', occurredAt: ago(0.2) }), 1),
  )
  await db.transaction(tx => addPerson(tx, { name: 'Evening technician', role: 'technician', outOfUse: false }))
  const s = await wholeShop(db)
  expect(s.printers[0]).toMatchObject({ name: 'Ribble', lastSpoolId: shop.spoolId, heads: [{ name: 'head' }] })
  expect(s.spools[0]).toMatchObject({
    tag: 'S-1',
    place: 'out',
    densityGCm3: 1.228,
    leftG: expect.closeTo(1000 - 120 - 77 - 3000, 6),
  })
  expect(s.people.map(p => p.name)).toEqual(['Day technician', 'Night technician', 'Shop lead', 'Evening technician'])
  expect(s.nozzles).toHaveLength(7)
  expect(s.types[0]!.name).toBe('hardened steel 0.4')
  expect(s.settings).toMatchObject({ shopName: 'Print shop', acceptedRisk: 0.1 })
})
