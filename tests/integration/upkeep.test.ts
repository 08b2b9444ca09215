/** Upkeep planned, done and struck out; hours and kilograms as the log has them, whatever is entered late. */
import { sql } from 'drizzle-orm'
import { describe, expect, test } from 'vitest'
import { cutOutTestSchema } from '#shared/entries/plans'
import { soakSchema } from '#shared/entries/prepare'
import { upkeepPlanSchema, upkeepSchema, upkeepTaskFields } from '#shared/entries/upkeep'
import { daysOf } from '../../server/db/lately'
import { chambersPage } from '../../server/records/chambers/surveys'
import { saveCutOutTest } from '../../server/records/chambers/plans'
import { editRecord } from '../../server/records/entry/edits'
import { saveEnding } from '../../server/records/entry/endings'
import { endingSchema } from '#shared/entries/log'
import { saveSoak } from '../../server/records/prepare/soaks'
import { guardStates } from '../../server/records/upkeep/guards'
import { addUpkeepTask, planUsual } from '../../server/records/upkeep/tasks'
import { saveUpkeep, upkeepDue, upkeepPage } from '../../server/records/upkeep/upkeep'
import { entriesOf } from './derived-support'
import { ago, freshDatabase, refusal, smallShop } from './support'

const { db } = await freshDatabase()
const shop = await smallShop(db)
const { tx, run, strike } = entriesOf(db, shop)
const task = (more: object) =>
  tx(c =>
    addUpkeepTask(
      c,
      upkeepTaskFields.parse({ printerId: shop.printerId, kind: 'belts', name: 'Belts', basis: 'practice', ...more }),
      1,
    ),
  )
const done = (taskId: number, found: string, at: number, says = '') =>
  tx(c => saveUpkeep(c, upkeepSchema.parse({ taskId, found, says, occurredAt: ago(at) }), 1))
const tasks = async () => (await upkeepPage(db)).printers[0]!.tasks
const one = async (id: number) => (await tasks()).find(t => t.id === id)!
/** Straight from the log. */
const straight = () =>
  db.execute(sql`
    select day_of(r.ended_at)::text as day, r.printer_id, count(*)::int runs, coalesce(sum(r.hours), 0)::float8 h,
      coalesce(sum(g.g), 0)::float8 g
    from standing_runs r cross join lateral (select sum(t.extruded_g) filter (where t.filler_fraction > 0) g
      from run_tools t where t.run_id = r.id) g
    group by 1, 2 order by 1, 2`)
const kept = () =>
  db.execute(sql`select day::text as day, printer_id, runs, hours h, filled_g g from printer_days order by 1, 2`)

describe('hours and kilograms', () => {
  test('since it was done last; late, struck out, on the same day: as the log has them', async () => {
    const { id } = await task({ everyHours: 10, everyKg: 5 })
    await done(id, 'in order', 5)
    expect(await one(id)).toMatchObject({ hours: 0, kg: 0, due: null })
    await run(6, { hours: 7 })
    // the morning of the day on which it was done counts as little as the day before
    const later = await run(4.99, { hours: 4 })
    const last = await run(1, { hours: 5.5 })
    expect([...(await kept())]).toEqual([...(await straight())])
    expect((await one(id)).hours).toBeCloseTo(9.5, 9)
    expect((await one(id)).kg).toBeCloseTo(0.04, 9)
    expect((await one(id)).due).toMatchObject({ mark: 'fine' })
    await run(0.5, { hours: null })
    expect((await one(id)).withoutHours).toBe(1)
    // one that hardly works: what comes in thousands of days takes no list down
    const seldom = await task({ name: 'Rods', kind: 'rods and screws', everyHours: 20_000 })
    expect((await one(seldom.id)).inDays).toBeGreaterThan(5_000)
    expect((await upkeepDue(db)).some(d => d.of === 'Rods')).toBe(false)
    await strike('run', later.runId)
    await strike('run', last.runId)
    expect([...(await kept())]).toEqual([...(await straight())])
    expect((await one(id)).hours).toBe(0)
  })
  test('a soak counts as hours at work', async () => {
    const { id } = await task({ name: 'Fans', kind: 'fans', everyHours: 100 })
    await done(id, 'in order', 3)
    const soak = {
      printerId: shop.printerId,
      materialId: shop.materialId,
      bedC: 60,
      part: 'small',
      minutes: 60,
      basis: 'practice',
      occurredAt: ago(2),
    }
    const { id: soakId } = await tx(c => saveSoak(c, soakSchema.parse(soak), 1))
    const ended = { target: 'soak', targetId: soakId, outcome: 'done', occurredAt: ago(2 - 2 / 24) }
    await tx(c => saveEnding(c, endingSchema.parse(ended), 1))
    const before = (await one(id)).hours
    expect(before).toBeGreaterThan(1.9)
    await strike('soak', soakId)
    expect((await one(id)).hours).toBeCloseTo(before - 2, 2)
  })
})

test('what needs work says what, stays due, and is due no more when it was put right', async () => {
  const { id } = await task({ name: 'Filters', kind: 'filters', everyDays: 30 })
  expect(
    upkeepSchema.safeParse({ taskId: id, found: 'needs work', occurredAt: ago(0) }).error!.issues[0]!.path,
  ).toEqual(['says'])
  const { id: entry } = await done(id, 'needs work', 1, 'carbon is spent')
  expect((await one(id)).due).toMatchObject({ mark: 'look', reason: expect.stringMatching(/carbon is spent/) })
  await done(id, 'replaced', 0.5)
  expect((await one(id)).due).toBeNull()
  await strike('upkeep', entry)
  expect((await upkeepPage(db)).entries.find(e => e.id === entry)!.struck).not.toBeNull()
})

test('what goes on a day is spread over the days that there were, a week at least', async () => {
  const over = async (days: number) => {
    const since = sql`now() - ${days}::int * interval '1 day'`
    const [row] = await db.execute<{ d: number }>(sql`select ${daysOf(since, 28)} d`)
    return row!.d
  }
  expect([await over(100), await over(20), await over(2)]).toEqual([28, 20, 7])
})

test('a guard stands as its latest test found it, for the check before a run too', async () => {
  const test = (tripped: boolean, days: number) => {
    const entry = {
      printerId: shop.printerId,
      guard: 'hotend thermal cut-out',
      tripped,
      atC: 130,
      occurredAt: ago(days),
    }
    return tx(c => saveCutOutTest(c, cutOutTestSchema.parse(entry), 1))
  }
  const hotend = async (id: number = shop.printerId) =>
    (await guardStates(db, { id, parts: [] }, Date.now())).find(g => g.guard === 'hotend thermal cut-out')?.state
  expect(await hotend()).toBe('never tested')
  await test(true, 3)
  expect(await hotend()).toBe('proved')
  const { id } = await test(false, 1)
  expect(await hotend()).toBe('failed')
  expect(await hotend(shop.printerId + 1)).toBe('never tested')
  await strike('cut-out test', id)
  expect(await hotend()).toBe('proved')
})

test('an interval of zero, none, or a guard twice: named at its field', async () => {
  const issue = (more: object) =>
    upkeepTaskFields.safeParse({ printerId: 1, kind: 'belts', name: 'Belts', basis: 'practice', ...more }).error!
      .issues[0]!
  expect(issue({ everyHours: 0 }).path).toEqual(['everyHours'])
  expect(issue({})).toMatchObject({
    path: ['everyHours'],
    message: 'Enter hours, kilograms or days: one of them at least',
  })
  expect(issue({ kind: 'cut-out test', everyDays: 9 }).path).toEqual(['guard'])
  const guard = { kind: 'cut-out test', name: 'Bed', guard: 'bed thermal cut-out', everyDays: 90 }
  const { id } = await task(guard)
  expect((await refusal(task({ ...guard, name: 'Bed again' }))).errors![0]).toMatchObject({ field: 'guard' })
  await tx(c => editRecord(c, 'upkeep-tasks', id, 1, { withdrawn: true, guard: 'bed thermal cut-out' }, 1))
  await task({ ...guard, name: 'Bed again' })
})

test('a test of a cut-out is logged as such, and the shop’s interval counts wherever it is shown', async () => {
  const planned = (await tasks()).find(t => t.guard !== null && !t.withdrawn)!
  expect((await refusal(done(planned.id, 'in order', 0))).errors![0]!.message).toMatch(/log the test itself/)
  const test = (tripped: boolean, at: number) =>
    tx(c =>
      saveCutOutTest(
        c,
        cutOutTestSchema.parse({ printerId: shop.printerId, guard: planned.guard, tripped, occurredAt: ago(at) }),
        1,
      ),
    )
  await test(true, 100)
  // 90 days are wanted here, a year is usual
  expect((await one(planned.id)).due).toMatchObject({
    mark: 'look',
    reason: expect.stringMatching(/100 days ago; every 90/),
  })
  expect((await chambersPage(db)).testEvery).toContainEqual({
    printerId: shop.printerId,
    guard: planned.guard,
    days: 90,
  })
  await test(false, 1)
  expect((await upkeepDue(db)).find(d => d.mark === 'stop')!.reason).toMatch(/bed thermal cut-out did not trip/)
  const { id, version, guard } = await one(planned.id)
  const withdrawn = { withdrawn: true, guard }
  await tx(c => editRecord(c, 'upkeep-tasks', id, version, withdrawn, 1))
  expect(
    (await upkeepDue(db)).some(d => d.mark === 'stop'),
    'its test is wanted no longer, and it failed',
  ).toBe(true)
  await tx(c => editRecord(c, 'upkeep-tasks', id, version + 1, { withdrawn: false, guard }, 1))
  await test(true, 0.5)
  expect((await one(planned.id)).due).toBeNull()
})

test('the usual is planned once; what the shop withdrew stays withdrawn', async () => {
  const first = await tx(c => planUsual(c, upkeepPlanSchema.parse({ printerId: shop.printerId }), 1))
  expect(first.added).toBeGreaterThan(5)
  expect((await tx(c => planUsual(c, upkeepPlanSchema.parse({ printerId: shop.printerId }), 1))).added).toBe(0)
  const due = await upkeepDue(db)
  expect(due.filter(d => /^Nobody has tested/.test(d.reason))).toHaveLength(1)
})
