/** What is due over every subject; put off and due again; calendars by private addresses. */
import { createHash } from 'node:crypto'
import { sql } from 'drizzle-orm'
import { expect, test } from 'vitest'
import { serviceTagSchema } from '#shared/entries/change'
import { feedSchema, snoozeSchema } from '#shared/entries/due'
import { upkeepPlanSchema, upkeepTaskFields, upkeepSchema } from '#shared/entries/upkeep'
import { floor } from '../../server/records/bench/floor'
import { saveServiceTag } from '../../server/records/change/service'
import { calendarOf } from '../../server/records/due/calendar'
import { dueItems, dueList } from '../../server/records/due/due'
import { addFeed, needFeed } from '../../server/records/due/feeds'
import { saveSnooze } from '../../server/records/due/snoozes'
import { editRecord } from '../../server/records/entry/edits'
import { addUpkeepTask, planUsual } from '../../server/records/upkeep/tasks'
import { saveUpkeep } from '../../server/records/upkeep/upkeep'
import { entriesOf } from './derived-support'
import { ago, freshDatabase, refusal, smallShop } from './support'

const { db } = await freshDatabase()
const shop = await smallShop(db)
const { tx, run, strike } = entriesOf(db, shop)
const { printerId } = shop
const snooze = (key: string, days: number, reason = 'a part is on its way') =>
  tx(c => saveSnooze(c, snoozeSchema.parse({ key, until: ago(-days), reason, occurredAt: ago(0) }), 1))

test('every subject says what is due of it, by its own rule, once', async () => {
  const before = await dueItems(db)
  expect(before.find(i => i.reason === 'No upkeep is planned here.')).toBeDefined()
  await tx(c => planUsual(c, upkeepPlanSchema.parse({ printerId }), 1))
  for (const why of ['a wire is frayed', 'the door does not shut'])
    await tx(c => saveServiceTag(c, serviceTagSchema.parse({ printerId, why, occurredAt: ago(0.1) }), 1))
  const belts = { printerId, kind: 'belts', name: 'Idler', everyDays: 10, basis: 'practice' }
  const { id: taskId } = await tx(c => addUpkeepTask(c, upkeepTaskFields.parse(belts), 1))
  await tx(c => saveUpkeep(c, upkeepSchema.parse({ taskId, found: 'in order', occurredAt: ago(4) }), 1))
  const { items, counts } = await dueList(db)
  // of two tags neither hides the other
  const tags = items.filter(i => i.reason.startsWith('Out of service'))
  expect(tags.map(i => [i.mark, i.printer])).toEqual([
    ['stop', 'Ribble'],
    ['stop', 'Ribble'],
  ])
  expect(items[0]!.reason).toMatch(/^Out of service/)
  expect(items.filter(i => /^Nobody has tested/.test(i.reason))).toHaveLength(1)
  expect(items.filter(i => /^Nobody has checked/.test(i.reason))).toHaveLength(1)
  // not due, but it comes: with its day
  const coming = items.find(i => i.of === 'Idler')!
  expect(Math.round((Date.parse(coming.on!) - Date.now()) / 86_400_000)).toBe(6)
  expect(new Set(items.map(i => i.key)).size).toBe(items.length)
  expect(counts.change).toBe(items.filter(i => i.station === 'change' && i.on === null && i.mark !== 'fine').length)
})

test('put off with a reason and a day; never what stops; due again when it is struck out', async () => {
  const all = await dueItems(db)
  const stop = all.find(i => i.mark === 'stop')!
  const look = all.find(i => i.mark === 'look' && i.on === null)!
  expect((await refusal(snooze(stop.key, 1))).errors![0]!.message).toMatch(/is not put off/)
  expect((await refusal(snooze(look.key, -1))).errors![0]!.field).toBe('until')
  expect((await refusal(snooze(look.key, 120))).errors![0]!.field).toBe('until')
  expect((await refusal(snooze('nothing of the kind', 1))).errors![0]!.field).toBe('key')
  expect(snoozeSchema.safeParse({ key: look.key, until: ago(-1), reason: '', occurredAt: ago(0) }).success).toBe(false)
  const { counts } = await dueList(db)
  const { id } = await snooze(look.key, 3)
  const after = await dueList(db)
  expect(after.items.find(i => i.key === look.key)!.snoozed).toMatchObject({ reason: 'a part is on its way' })
  expect(after.counts[look.station] ?? 0).toBe(counts[look.station]! - 1)
  expect((await floor(db)).putOff, 'the Floor knows it by its key').toEqual([look.key])
  await strike('snooze', id)
  expect((await dueItems(db)).find(i => i.key === look.key)!.snoozed).toBeNull()
  expect((await floor(db)).putOff).toEqual([])
})

test('what the last job asked too much is over: once looked at it is put off, the next is told anew', async () => {
  const over = async () => (await dueItems(db)).filter(i => i.isOver)
  expect(await over()).toEqual([])
  await run(0.02, { bedSetC: 130 }, 10)
  const [hot] = await over()
  expect(hot).toMatchObject({ mark: 'stop', reason: expect.stringMatching(/^The last job asked 130 °C of the bed/) })
  await snooze(hot!.key, 30, 'looked at: nothing browned')
  expect((await over())[0]!.snoozed).toMatchObject({ reason: 'looked at: nothing browned' })
  await run(0.01, { bedSetC: 130 }, 10)
  expect((await over()).map(i => i.snoozed)).toEqual([null])
})

test('a calendar reads by an address of which only the hash is kept, until it is revoked', async () => {
  const secret = 'f'.repeat(48)
  const tokenSha256 = createHash('sha256').update(secret).digest('hex')
  const { id } = await tx(c => addFeed(c, feedSchema.parse({ name: 'Lead', tokenSha256 }), 1))
  await needFeed(db, secret)
  const stored = JSON.stringify(await db.execute(sql`select * from calendar_feeds`))
  expect(stored).not.toContain(secret)
  expect((await refusal(needFeed(db, 'another'))).status).toBe(404)
  await tx(c => editRecord(c, 'calendar-feeds', id, 1, { name: 'Lead', revoked: true }, 1))
  expect(await refusal(needFeed(db, secret))).toMatchObject({
    status: 410,
    title: expect.stringMatching(/was revoked/),
  })
  const back = await refusal(tx(c => editRecord(c, 'calendar-feeds', id, 2, { name: 'Lead', revoked: false }, 1)))
  expect(back.errors![0]!.field).toBe('revoked')
  expect(await calendarOf(db)).toMatch(/^BEGIN:VCALENDAR\r\n/)
})
