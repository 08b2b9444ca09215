/** What can be put right of nozzles and spools, and corrections that reach back to runs that are logged. */
import { sql } from 'drizzle-orm'
import { expect, test } from 'vitest'
import { editRecord, listEdits } from '../../server/records/entry/edits'
import { addMaterial } from '../../server/records/materials/materials'
import { saveGauge } from '../../server/records/nozzles/gauges'
import { addNozzle, nozzlePage } from '../../server/records/nozzles/nozzles'
import { addNozzleType } from '../../server/records/nozzles/types'
import { refreshMissing, refreshStale } from '../../server/records/nozzles/forecasts'
import { listRuns, saveRun } from '../../server/records/runs/runs'
import { listSpools } from '../../server/records/spools/spools'
import { nozzleSchema } from '#shared/entries/nozzles'
import type { Connection, Database } from '../../server/db/client'
import { ago, freshDatabase, gaugeEntry, materialEntry, refusal, runEntry, smallShop, typeEntry } from './support'

const { db } = await freshDatabase()
const other = await freshDatabase()
const tx = <T>(work: (c: Connection) => Promise<T>, on: Database = db) => on.transaction(work)
const shop = await smallShop(db)
await smallShop(other.db)
const plainOf = (on: Database) =>
  tx(
    c =>
      addMaterial(
        c,
        materialEntry('PETG', {
          polymer: 'PETG',
          filler: 'none',
          fillerFraction: 0,
          abrasivity: 0.02,
          densityGCm3: 1.27,
        }),
        1,
      ),
    on,
  )
const plain = await plainOf(db)
await plainOf(other.db)
const version = async (table: string, id: number) =>
  (await db.execute<{ v: number }>(sql`select version v from ${sql.identifier(table)} where id = ${id}`))[0]!.v
const edit = async (kind: 'spools' | 'nozzles' | 'materials', id: number, values: object, confirmed: string[] = []) => {
  const seen = await version(kind, id)
  return await tx(c => editRecord(c, kind, id, seen, values as Record<string, unknown>, 1, confirmed))
}
const LOGGED = [
  { endedAt: ago(9), grams: 100 },
  { endedAt: ago(8), grams: 120 },
  { endedAt: ago(7), grams: 80 },
]
async function logged(on: Database, of: object): Promise<void> {
  for (const { endedAt, grams } of LOGGED) {
    const run = runEntry(shop, { endedAt, hours: 1, name: `job of ${grams}` }, { kind: 'grams', grams })
    const tools = run.tools.map(t => ({ ...t, ...of }))
    await tx(c => saveRun(c, { ...run, tools }, 1), on)
  }
  const metres = runEntry(shop, { endedAt: ago(6), hours: 1, name: 'by length' }, { kind: 'metres', metres: 10 })
  await tx(c => saveRun(c, { ...metres, tools: metres.tools.map(t => ({ ...t, ...of })) }, 1), on)
  await tx(c => saveGauge(c, gaugeEntry(shop, { goMm: 0.4, noGoMm: 0.41, occurredAt: ago(5) }), 1), on)
}
await logged(db, {})
/** The same shop, in which it was known from the beginning. */
await tx(async c => {
  await c.execute(sql`update spools set material_id = ${plain.id}`)
}, other.db)
await logged(other.db, {})
async function afresh(on: Database) {
  while ((await refreshMissing(on)) > 0);
  await on.execute(sql`update forecasts set stale = true, moved = null`)
  while ((await refreshStale(on)) > 0);
  const page = await nozzlePage(on, 'N-1')
  return { forecast: page.forecast, fibreG: page.fibreG, extrudedG: page.extrudedG }
}

test('a spool of another material: asked with what each run would become, then as if it had been known', async () => {
  const before = (await nozzlePage(db, 'N-1')).fibreG
  expect(before).toBeGreaterThan(50)
  const { questions } = await refusal(edit('spools', shop.spoolId, { materialId: plain.id }))
  expect(questions).toHaveLength(1)
  expect(questions![0]).toMatchObject({ code: 'earlier-runs', field: 'materialId' })
  expect(questions![0]!.message).toBe('4 runs were logged with what is corrected here. What was it then?')
  expect(questions![0]!.items![0]).toMatch(/ job of 100: PA6-CF20, 20\.0 g fibre → PETG, 0(\.0)? m?g fibre$/)
  // nothing was changed by asking
  expect((await listSpools(db, [shop.spoolId]))[0]!.material).toBe('PA6-CF20')

  await edit('spools', shop.spoolId, { materialId: plain.id }, ['earlier-runs:correct'])
  const runs = (await listRuns(db, 20, null)).runs
  expect(runs).toHaveLength(8)
  const [stand, struck] = [runs.filter(r => r.struck === null), runs.filter(r => r.struck !== null)]
  expect(stand.map(r => r.tools[0]!.material)).toEqual(Array(4).fill('PETG'))
  expect(struck.every(r => r.struck!.reason === 'S-1 was put right; entered again')).toBe(true)
  // what was known of the amount stays: grams are grams, ten metres weigh more
  expect(stand.find(r => r.name === 'job of 120')!.tools[0]!.extrudedG).toBe(120)
  expect(stand.find(r => r.name === 'by length')!.tools[0]!.extrudedG).toBeCloseTo(
    10_000 * Math.PI * 0.875 ** 2 * 1.27e-3,
    6,
  )
  expect(await afresh(db)).toEqual(await afresh(other.db))
  const left = async (on: Database) => (await listSpools(on, [shop.spoolId])).map(s => [s.leftG, s.material])
  expect(await left(db)).toEqual(await left(other.db))
  expect((await listEdits(db, 'spools', shop.spoolId))[0]).toMatchObject({ before: { materialId: shop.materialId } })
})

test('from now on: what is logged stays; and an edit that changes no run asks nothing', async () => {
  const fibre = async () => (await nozzlePage(db, 'N-1')).fibreG
  const was = await fibre()
  await edit('spools', shop.spoolId, { fillerFraction: 0.1 }, ['earlier-runs:keep'])
  expect(await fibre()).toBe(was)
  await edit('spools', shop.spoolId, { netG: 1100, note: 'the label says so' })
  expect((await listSpools(db, [shop.spoolId]))[0]).toMatchObject({ netG: 1100, note: 'the label says so' })
  // the share of the lot is what runs would have been entered with
  await edit('spools', shop.spoolId, { fillerFraction: 0.2 }, ['earlier-runs:correct'])
  expect(await fibre()).toBeGreaterThan(was)
})

test('the fibre share of a material, where a spool has none of its own', async () => {
  const run = runEntry(shop, { endedAt: ago(4), hours: 1, name: 'without a spool' }, { kind: 'grams', grams: 50 })
  const tools = run.tools.map(t => ({ ...t, spoolId: null, materialId: shop.materialId }))
  await tx(c => saveRun(c, { ...run, tools }, 1))
  const { questions } = await refusal(edit('materials', shop.materialId, { fillerFraction: 0.3 }))
  expect(questions![0]!.items).toEqual([expect.stringContaining('10.0 g fibre → PA6-CF20, 15.0 g fibre')])
  await edit('materials', shop.materialId, { fillerFraction: 0.3 }, ['earlier-runs:correct'])
  const [now] = (await listRuns(db, 1, null)).runs
  expect(now).toMatchObject({ name: 'without a spool', tools: [{ fibreG: 15 }] })
})

test('tags, types and what is not known', async () => {
  expect((await refusal(edit('spools', shop.spoolId, { materialId: 999 }))).errors![0]!.field).toBe('materialId')
  const carbide = await tx(c => addNozzleType(c, typeEntry('tungsten carbide 0.4', 'tungsten carbide'), 1))
  const n = await tx(c => addNozzle(c, nozzleSchema.parse({ tag: 'N-2', typeId: shop.typeId, receivedAt: ago(3) }), 1))
  expect((await refusal(edit('nozzles', n.id, { tag: 'n-1' }))).errors![0]).toEqual({
    field: 'tag',
    message: 'There is already a nozzle n-1',
  })
  expect((await refusal(edit('nozzles', n.id, { typeId: 999 }))).errors![0]!.field).toBe('typeId')
  const before = await nozzlePage(db, 'N-1')
  expect(before.sisters).toBe(0)
  await edit('nozzles', n.id, { tag: 'N-02', wasUsed: true })
  expect((await nozzlePage(db, 'n-02')).nozzle).toMatchObject({ tag: 'N-02', wasUsed: true })
  // N-1 turns out to be of carbide: hardened steel hears no more of it
  await edit('nozzles', shop.nozzleId, { typeId: carbide.id })
  const now = await nozzlePage(db, 'N-1')
  expect(now.type.name).toBe('tungsten carbide 0.4')
  const sums = await db.execute<{ material: string; sisters: number }>(
    sql`select material, sisters from sister_sums order by material`,
  )
  expect(sums.find(s => s.material === 'hardened steel')?.sisters ?? 0).toBe(0)
  expect(sums.find(s => s.material === 'tungsten carbide')?.sisters).toBe(1)
  expect((await listEdits(db, 'nozzles', shop.nozzleId))[0]).toMatchObject({ before: { typeId: shop.typeId } })
})
