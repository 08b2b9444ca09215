/** What is let go after 90 days, and what stays: whatever a record rests on, and that an entry was stored. */
import { sql } from 'drizzle-orm'
import { expect, test } from 'vitest'
import { soakSchema } from '#shared/entries/prepare'
import { dailyChores, KEPT_DAYS } from '../../server/records/entry/chores'
import { once } from '../../server/records/entry/answers'
import { keepReading, saveSoak } from '../../server/records/prepare/soaks'
import { ago, freshDatabase, refusal, smallShop } from './support'

const { db } = await freshDatabase()
const shop = await smallShop(db)
const day = 86_400_000
const readings = async () => (await db.execute<{ n: number }>(sql`select count(*)::int n from readings`))[0]!.n
const soaked = async (daysAgo: number) => {
  const { id } = await db.transaction(tx =>
    saveSoak(
      tx,
      soakSchema.parse({
        printerId: shop.printerId,
        bedC: 90,
        part: 'small',
        minutes: 60,
        basis: 'practice',
        occurredAt: ago(daysAgo),
        confirmed: ['soaking'],
      }),
      1,
    ),
  )
  for (let i = 0; i < 10; i++)
    await keepReading(db, shop.printerId, new Date(Date.now() - daysAgo * day + i * 60_000), 90, 30 + i)
  return id
}

test('readings of printers go after 90 days, those that a warm-up was fitted to stay', async () => {
  await soaked(KEPT_DAYS + 40)
  await soaked(KEPT_DAYS + 20)
  await soaked(3)
  await db.execute(sql`
    insert into warm_ups (printer_id, place, opening, source, bed_c, room_c, fit, readings, occurred_at, person_id)
    values (${shop.printerId}, 'high', 'shut', 'live readings', 90, 23, '{}', '[]', ${ago(KEPT_DAYS + 20 - 0.01)}, 1)`)
  expect(await readings()).toBe(30)
  expect(await dailyChores(db)).toMatchObject({ readings: 10 })
  expect(await readings()).toBe(20)
  expect(await dailyChores(db), 'once a day, whoever asks').toBe(null)
})

test('of two processes one does it', async () => {
  await db.execute(sql`update chores set done_on = done_on - 1`)
  const both = await Promise.all([dailyChores(db), dailyChores(db)])
  expect(both.filter(b => b !== null)).toHaveLength(1)
})

test('an entry that is sent again after its answer went is told that it is stored, and counts once', async () => {
  const entry = { key: 'an-old-entry', route: '/api/x', body: { a: 1 }, personId: 1 }
  let saved = 0
  const save = async () => ({ n: ++saved })
  expect(await once(db, entry, save)).toEqual({ answer: { n: 1 }, repeated: false })
  expect(await once(db, entry, save)).toEqual({ answer: { n: 1 }, repeated: true })
  await db.execute(sql`update answers set recorded_at = recorded_at - interval '91 days'`)
  await db.execute(sql`update chores set done_on = done_on - 1`)
  expect(await dailyChores(db)).toMatchObject({ answers: 1 })
  const told = await refusal(once(db, entry, save))
  expect(told).toMatchObject({ type: 'urn:iron-nozzle:already-stored', status: 409 })
  expect(told.title).toContain('Already stored')
  expect((await refusal(once(db, { ...entry, body: { a: 2 } }, save))).type).toBe('urn:iron-nozzle:reused-key')
  expect(saved).toBe(1)
})
