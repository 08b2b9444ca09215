/** The database tells what was saved and whom it names, whatever way it was saved; a screen hears what concerns it. */
import { sql } from 'drizzle-orm'
import { afterAll, expect, test } from 'vitest'
import { strikeSchema } from '#shared/entries/log'
import { nozzleSchema } from '#shared/entries/nozzles'
import { spoolEventSchema } from '#shared/entries/spools'
import { newsItem, type NewsItem } from '#shared/answers/news'
import { concerns, ofShop } from '#shared/news'
import { Listener } from '../../server/db/listener'
import { NEWS } from '../../server/db/news'
import { equip } from '../../server/records/bench/equip'
import { floor } from '../../server/records/bench/floor'
import { editRecord } from '../../server/records/entry/edits'
import { saveStrike } from '../../server/records/entry/strikes'
import { saveGauge } from '../../server/records/nozzles/gauges'
import { addNozzle, nozzlePage } from '../../server/records/nozzles/nozzles'
import { saveRun } from '../../server/records/runs/runs'
import { shopNewsOf } from '../../server/records/shop/news'
import { saveSpoolEvent } from '../../server/records/spools/spools'
import { ago, freshDatabase, gaugeEntry, runEntry, smallShop } from './support'

const { db, url } = await freshDatabase()
const shop = await smallShop(db)
const other = await db.transaction(tx =>
  addNozzle(tx, nozzleSchema.parse({ tag: 'N-2', typeId: shop.typeId, receivedAt: ago(9) }), 1),
)
let heard: NewsItem[] = []
let missed = 0
const listener = new Listener(url).hear(
  NEWS,
  text => heard.push(newsItem.parse(JSON.parse(text))),
  () => missed++,
)
afterAll(() => listener.stop())
const tx = <T>(work: (c: Parameters<Parameters<typeof db.transaction>[0]>[0]) => Promise<T>) => db.transaction(work)

/** What is told of a save, without what it tells of forecasts that follow from it. */
async function told(save: () => Promise<unknown>): Promise<NewsItem[]> {
  await until(() => listener.isListening)
  const mark = async (word: string) => {
    await db.execute(sql`select pg_notify(${NEWS}, ${JSON.stringify({ of: word })})`)
    await until(() => heard.some(n => n.of === word))
  }
  await mark('begin') // what was saved before is heard
  heard = []
  await save()
  await mark('end')
  return heard.filter(n => n.of !== 'end')
}
async function until(is: () => boolean): Promise<void> {
  for (let i = 0; i < 200 && !is(); i++) await new Promise(done => setTimeout(done, 20))
  expect(is()).toBe(true)
}
const of = (items: NewsItem[], table: string) => items.find(n => n.of === table)
const gauge = (nozzleId: number, more = {}) =>
  tx(c =>
    saveGauge(c, gaugeEntry({ ...shop, nozzleId }, { goMm: 0.4, noGoMm: 0.41, occurredAt: ago(0.2), ...more }), 1),
  )

test('a run names its printer, nozzle, spool and material; struck out it names them again', async () => {
  let runId = 0
  const items = await told(async () => (runId = (await tx(c => saveRun(c, runEntry(shop), 1))).runId))
  expect(of(items, 'runs')).toMatchObject({ id: runId, printer: shop.printerId })
  const tool = { nozzle: shop.nozzleId, spool: shop.spoolId, material: shop.materialId }
  expect(of(items, 'run_tools')).toMatchObject({ ...tool, printer: shop.printerId })
  expect(of(items, 'forecasts')).toMatchObject({ nozzle: shop.nozzleId })
  const struck = await told(() =>
    tx(c => saveStrike(c, strikeSchema.parse({ target: 'run', targetId: runId, reason: 'twice' }), 1)),
  )
  expect(of(struck, 'runs')).toMatchObject({ id: runId, printer: shop.printerId })
  expect(of(struck, 'run_tools')).toMatchObject(tool)
  expect(of(struck, 'strikes')).toBeUndefined()
})

test('nothing is told of what was rolled back, nor of a forecast that is only marked', async () => {
  expect(
    await told(() =>
      tx(async c => {
        await c.execute(sql`update forecasts set stale = true`)
        throw new Error('given up')
      }).catch(() => {}),
    ),
  ).toEqual([])
  expect(await told(() => db.execute(sql`update forecasts set stale = true`))).toEqual([])
})

test('a gauge concerns the page of its nozzle and the Floor where that is fitted, not other nozzles', async () => {
  const [own, others, floorNow] = [await nozzlePage(db, 'N-1'), await nozzlePage(db, 'N-2'), await floor(db)]
  const fitted = await told(() => gauge(shop.nozzleId))
  expect(concerns('/api/nozzles/{tag}', own, fitted)).toBe(true)
  expect(concerns('/api/nozzles/{tag}', others, fitted)).toBe(false)
  expect(concerns('/api/floor', floorNow, fitted)).toBe(true)
  const shelf = await told(() => gauge(other.id))
  expect(concerns('/api/nozzles/{tag}', own, shelf)).toBe(false)
  expect(concerns('/api/floor', floorNow, shelf)).toBe(false)
  expect(ofShop(shelf)).toMatchObject({ whole: false, nozzles: [other.id], spools: [], printers: false })
  const lines = await shopNewsOf(db, ofShop(shelf))
  expect(lines.nozzles.map(n => n.tag)).toEqual(['N-2'])
  expect(lines.nozzles[0]!.lastGaugedAt).not.toBe(null)
})

test('a forecast of a spare concerns Equip only where it takes the nozzle off what is to be had', async () => {
  const tags = async () => (await equip(db)).nozzles.map(n => n.tag)
  const before = await equip(db)
  expect(before.nozzles.map(n => n.tag)).toContain('N-2')
  const good = await told(() => gauge(other.id, { occurredAt: ago(0.08) }))
  expect(of(good, 'forecasts')).toMatchObject({ nozzle: other.id, past: false })
  expect(concerns('/api/equip', before, good)).toBe(false)
  expect(await tags()).toContain('N-2')
  const worn = await told(() =>
    db.execute(sql`update forecasts set past_chance = 0.6, computed_at = now() where nozzle_id = ${other.id}`),
  )
  expect(of(worn, 'forecasts')).toMatchObject({ nozzle: other.id, past: true })
  expect(concerns('/api/equip', before, worn)).toBe(true)
  expect(await tags()).not.toContain('N-2')
})

test('an event of a spool is told with its line; an edit of a record concerns everybody', async () => {
  const items = await told(() =>
    tx(c =>
      saveSpoolEvent(
        c,
        spoolEventSchema.parse({ spoolId: shop.spoolId, kind: 'weighed', grossG: 900, occurredAt: ago(0.1) }),
        1,
      ),
    ),
  )
  expect(items).toEqual([expect.objectContaining({ of: 'spool_events', spool: shop.spoolId })])
  expect((await shopNewsOf(db, ofShop(items))).spools).toMatchObject([{ tag: 'S-1', leftG: 700 }])
  const edited = await told(() => tx(c => editRecord(c, 'settings', 1, 1, { shopName: 'Another' }, 1)))
  expect(ofShop(edited).whole).toBe(true)
  expect(concerns('/api/nozzles/{tag}', await nozzlePage(db, 'N-2'), edited)).toBe(true)
})

test('a table that nobody named yet concerns everybody', async () => {
  const items = [{ of: 'a_table_of_tomorrow', id: 1 }]
  expect(concerns('/api/nozzles/{tag}', await nozzlePage(db, 'N-1'), items)).toBe(true)
  expect(concerns('/api/floor', await floor(db), items)).toBe(true)
  expect(ofShop(items).whole).toBe(true)
})

test('a connection that is cut is made anew within 5 s, and says that something may have been missed', async () => {
  const before = missed
  const cut = Date.now()
  await db.execute(sql`select pg_terminate_backend(pid) from pg_stat_activity
    where query ilike 'listen%' and datname = current_database()`)
  await until(() => missed > before)
  expect(Date.now() - cut).toBeLessThan(5000)
  expect(of(await told(() => gauge(other.id, { occurredAt: ago(0.05) })), 'gauges')).toMatchObject({ nozzle: other.id })
})
