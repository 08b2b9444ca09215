/** Strike out and enter again: the form gets what was sent, and old and new change places in one step or not at all. */
import { sql } from 'drizzle-orm'
import { beforeAll, expect, test } from 'vitest'
import type { EnteredOf } from '#shared/answers/again'
import { ENTERED_KINDS } from '#shared/answers/again'
import { ENTRIES } from '#shared/api'
import { gaugeSchema } from '#shared/entries/nozzles'
import { runSchema, type RunEntry } from '#shared/entries/runs'
import { spoolEventSchema } from '#shared/entries/spools'
import { enteredAs, strikeReplaced } from '../../server/records/entry/again'
import { gaugeKind, saveGauge } from '../../server/records/nozzles/gauges'
import { nozzlePage } from '../../server/records/nozzles/nozzles'
import { saveRun } from '../../server/records/runs/runs'
import { spoolPage } from '../../server/records/spools/page'
import { saveSpoolEvent } from '../../server/records/spools/spools'
import { ago, freshDatabase, gaugeEntry, refusal, runEntry, smallShop } from './support'

const { db } = await freshDatabase()
const shop = await smallShop(db)
const tx = <T>(work: (c: Parameters<Parameters<typeof db.transaction>[0]>[0]) => Promise<T>) => db.transaction(work)
const struck = async (target: string, id: number) =>
  (
    await db.execute<{ reason: string }>(sql`select reason from strikes where target = ${target} and target_id = ${id}`)
  )[0]?.reason
/** As the door does it. */
const runAgain = (body: RunEntry) =>
  tx(async c => {
    const run = runSchema.parse(body)
    await strikeReplaced(c, 'run', run, 1)
    return await saveRun(c, run, 1)
  })
let runId = 0
beforeAll(async () => {
  runId = (await tx(c => saveRun(c, runEntry(shop, { note: 'as it was' }, { kind: 'grams', grams: 100 }), 1))).runId
})

test('every kind that can be entered again has its door', () => {
  const doors = Object.values(ENTRIES).flatMap(e => ('again' in e ? [e.again] : []))
  expect(doors.sort()).toEqual([...ENTERED_KINDS].sort())
})

test('a run comes back as it was sent, and one gram of another amount changes nothing else', async () => {
  const old = (await enteredAs(db, 'run', runId)) as EnteredOf<'run'>
  expect(old.body).toMatchObject({ note: 'as it was', printerId: shop.printerId, confirmed: [], replaces: null })
  expect(old.body.tools).toMatchObject([
    { nozzleId: shop.nozzleId, spoolId: shop.spoolId, materialId: null, amount: { kind: 'grams', grams: 100 } },
  ])
  const before = (await nozzlePage(db, 'N-1')).extrudedG
  const tools = [{ ...old.body.tools[0]!, amount: { kind: 'grams' as const, grams: 101 } }]
  // the same run twice is asked about, but the old one is no run any more when the new one is looked at
  const done = await runAgain({ ...old.body, tools, replaces: { id: runId, reason: 'a slip' } })
  expect(await struck('run', runId)).toBe('a slip')
  expect((await nozzlePage(db, 'N-1')).extrudedG - before).toBeCloseTo(1, 9)
  expect((await enteredAs(db, 'run', done.runId)).at).toBe(old.at)
})

test('what is refused of the strike is said at its reason, and nothing is stored', async () => {
  const before = (await nozzlePage(db, 'N-1')).record.length
  const again = await refusal(runAgain({ ...runEntry(shop), replaces: { id: runId, reason: 'twice' } }))
  expect(again.errors).toMatchObject([{ field: 'replaces.reason', message: 'This entry is struck out already' }])
  const short = runSchema.safeParse({ ...runEntry(shop), replaces: { id: runId, reason: 'x' } })
  expect(short.error!.issues[0]!.path).toEqual(['replaces', 'reason'])
  expect((await refusal(enteredAs(db, 'run', 999))).status).toBe(404)
  expect((await nozzlePage(db, 'N-1')).record).toHaveLength(before)
})

test('where the new one is refused the old one stands', async () => {
  const { gaugeId } = await tx(c => saveGauge(c, gaugeEntry(shop, { goMm: 0.4, noGoMm: 0.41 }), 1))
  const wrong = { ...gaugeEntry(shop, { goMm: 0.41, noGoMm: 0.42 }), occurredAt: ago(-2) }
  await refusal(
    tx(async c => {
      const gauge = gaugeSchema.parse({ ...wrong, replaces: { id: gaugeId, reason: 'misread' } })
      await strikeReplaced(c, 'gauge', gauge, 1)
      return await saveGauge(c, gauge, 1)
    }),
  )
  expect(await struck('gauge', gaugeId)).toBeUndefined()
  // the tolerance of pins is worked out; nobody entered one
  const old = (await enteredAs(db, 'gauge', gaugeId)) as EnteredOf<'gauge'>
  expect(old.body).toMatchObject({ goMm: 0.4, noGoMm: 0.41, valueMm: null, uMm: null, picture: null })
})

test('in place of a receipt stands a receipt', async () => {
  const receipt = (await nozzlePage(db, 'N-1')).record.find(r => r.title === 'Receipt gauge')!
  expect((await enteredAs(db, 'gauge', receipt.id)).body).toMatchObject({ valueMm: 0.401, uMm: 0.002 })
  const replaces = { id: receipt.id, reason: 'a slip' }
  expect(await gaugeKind(db, replaces)).toBe('receipt')
  expect(await gaugeKind(db, null)).toBe('service')
})

test('a weighing comes back with its weight, and the spool counts from the new one', async () => {
  const weigh = (grossG: number, more = {}) => ({
    ...{ spoolId: shop.spoolId, kind: 'weighed' as const, grossG, occurredAt: ago(0.01) },
    ...more,
  })
  const { id } = await tx(c => saveSpoolEvent(c, spoolEventSchema.parse(weigh(900)), 1))
  const old = (await enteredAs(db, 'spool event', id)) as EnteredOf<'spool event'>
  expect(old.body).toMatchObject({ kind: 'weighed', grossG: 900, spoolId: shop.spoolId })
  const now = spoolEventSchema.parse({ ...old.body, grossG: 800, replaces: { id, reason: 'read wrong' } })
  await tx(async c => {
    await strikeReplaced(c, 'spool event', now, 1)
    return await saveSpoolEvent(c, now, 1)
  })
  expect(await struck('spool event', id)).toBe('read wrong')
  expect((await spoolPage(db, 'S-1')).leftG).toBeCloseTo(600, 6)
})
