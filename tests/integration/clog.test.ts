/** A clog cleared step by step: what is written, what a printer that is still blocked keeps, what it teaches. */
import { sql } from 'drizzle-orm'
import { expect, test } from 'vitest'
import { procedureSchema } from '#shared/entries/change'
import { beginProcedure } from '../../server/records/change/begin'
import { changePage } from '../../server/records/change/board'
import { clogOffer } from '../../server/records/change/clog'
import { procedurePage } from '../../server/records/change/procedures'
import { saveTick } from '../../server/records/change/ticks'
import { clearedClogs } from '../../server/records/diagnosis/rows'
import { twoPrinters } from './hotend-support'
import { end, tickOf } from './procedure-support'
import { ago, freshDatabase, refusal } from './support'

const { db } = await freshDatabase()
const { shop, ribble } = await twoPrinters(db)
const begin = () =>
  db.transaction(tx =>
    beginProcedure(tx, procedureSchema.parse({ kind: 'clog', headId: ribble, occurredAt: ago(0) }), 1),
  )
const ENTERED: Record<string, Record<string, string>> = {
  feed: { shows: 'nothing' },
  needle: { needle: 'no change' },
  pull: { pull: 'runs' },
}
/** All its steps, the last one with what cleared it. */
async function walk(id: number, clearedBy: string): Promise<void> {
  const { steps } = await procedurePage(db, id)
  for (const s of steps) {
    const tick = tickOf(id, s)
    const values = { ...tick.values, ...ENTERED[s.key], ...(s.key === 'cleared' ? { clearedBy } : {}) }
    await db.transaction(tx => saveTick(tx, { ...tick, values }, 1))
  }
}

test('cleared: what runs from it now is logged, and it counts among what a print may have', async () => {
  const offer = await clogOffer(db, ribble)
  expect(offer).toMatchObject({ refusal: null, under: null, facts: { boreMm: 0.4, liner: false } })
  const { id } = await begin()
  expect((await clogOffer(db, ribble)).under).toMatchObject({ id })
  expect((await refusal(begin())).errors![0]!.message).toContain('is under way there')
  await walk(id, 'cold pull')
  await end(db, id)
  const [purge] = await db.execute<{ note: string; clean: boolean }>(
    sql`select note, clean from changeovers where head_id = ${ribble} order by id desc limit 1`,
  )
  expect(purge).toEqual({ note: 'after a clog was cleared', clean: true })
  expect(await clearedClogs(db)).toBe(1)
})

test('cleared by what changed nothing is asked about; still blocked it stays out of service', async () => {
  const { id } = await begin()
  const asked = await refusal(walk(id, 'needle'))
  expect(asked.questions![0]).toMatchObject({ code: 'far-clearedBy', field: 'values.clearedBy' })
  const { steps } = await procedurePage(db, id)
  const last = steps.find(s => s.key === 'cleared')!
  await db.transaction(tx => saveTick(tx, { ...tickOf(id, last), values: { clearedBy: 'nothing' } }, 1))
  await end(db, id)
  expect(await clearedClogs(db)).toBe(1)
  const { tags } = await changePage(db)
  expect(tags[0]).toMatchObject({ printerId: shop.printerId, why: expect.stringContaining('nothing cleared it') })
})
