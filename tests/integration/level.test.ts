/** Beds measured and Z numbers found: what is kept, refused, told before a run. */
import { expect, test } from 'vitest'
import { bedSchema, levelSchema, zRecordSchema } from '#shared/entries/level'
import { editRecord } from '../../server/records/entry/edits'
import { saveStrike } from '../../server/records/entry/strikes'
import { addBed } from '../../server/records/level/beds'
import { levelPage, levelStands, saveLevel } from '../../server/records/level/levels'
import { saveZRecord, zLostOn } from '../../server/records/level/z-records'
import { ago, freshDatabase, refusal, smallShop } from './support'

const { db } = await freshDatabase()
const { printerId, headId } = await smallShop(db)
const screws = [
  { name: 'front left', xMm: 30, yMm: 30 },
  { name: 'front right', xMm: 270, yMm: 30 },
  { name: 'back', xMm: 150, yMm: 270 },
]
const bed = { printerId, widthMm: 300, depthMm: 300, screws, pitchMm: 0.7, clockwise: 'lowers', basis: 'practice' }
const gaps = (...mm: number[]) => mm.map((gapMm, i) => ({ xMm: screws[i]!.xMm, yMm: screws[i]!.yMm, gapMm }))
const measured = (...rounds: ReturnType<typeof gaps>[]) => ({ how: 'feeler', wantedMm: 0.1, rounds })
const level = (m: object, at = 0.1, bedC = 100) =>
  db.transaction(tx => saveLevel(tx, levelSchema.parse({ printerId, measured: m, bedC, occurredAt: ago(at) }), 1))
const z = (why: string, zMm: number, at: number, more: object = {}) =>
  db.transaction(tx => saveZRecord(tx, zRecordSchema.parse({ headId, why, zMm, occurredAt: ago(at), ...more }), 1))

test('a bed is described before it is measured, once, and edited after', async () => {
  expect((await refusal(level(measured(gaps(0.1, 0.1, 0.1))))).errors![0]!.message).toMatch(/Describe its bed first/)
  const { id } = await db.transaction(tx => addBed(tx, bedSchema.parse(bed), 1))
  const twice = await refusal(db.transaction(tx => addBed(tx, bedSchema.parse(bed), 1)))
  expect(twice.errors![0]!.message).toMatch(/described already/)
  await db.transaction(tx => editRecord(tx, 'beds', id, 1, { pitchMm: 0.5 }, 1))
  expect((await levelPage(db, printerId)).bed).toMatchObject({ pitchMm: 0.5, version: 2 })
})

test('what no bed is, is refused at its field by the core’s own ranges', () => {
  const issue = (b: object) => bedSchema.safeParse({ ...bed, ...b }).error!.issues[0]!
  expect(issue({ pitchMm: 0 }).path).toEqual(['pitchMm'])
  expect(issue({ screws: screws.slice(0, 2) })).toMatchObject({
    path: ['screws'],
    message: 'Enter none, or three and more',
  })
  expect(issue({ screws: screws.map(s => ({ ...s, xMm: 900 })) }).path).toEqual(['screws', 0, 'xMm'])
  const mesh = {
    how: 'mesh',
    rows: [[0.1, 0.2], [0.1]],
    leftMm: 0,
    rightMm: 9,
    frontMm: 0,
    backMm: 9,
    firstRow: 'front',
  }
  const entry = { printerId, bedC: 60, measured: mesh, occurredAt: ago(0) }
  expect(levelSchema.safeParse(entry).error!.issues[0]!.path).toEqual(['measured', 'rows'])
})

test('a measure says what to turn; the last that stands counts; points on a line are refused', async () => {
  const line = [0, 100, 200].map(v => ({ xMm: v, yMm: v, gapMm: 0.1 }))
  expect((await refusal(level(measured(line as never)))).errors![0]!.message).toMatch(/off one line/)
  const first = await level(measured(gaps(0.1, 0.4, 0.1)), 3)
  expect(first).toMatchObject({ mark: 'look', action: expect.stringMatching(/^Turn front right/) })
  const second = await level(measured(gaps(0.1, 0.4, 0.1), gaps(0.1, 0.1, 0.12)), 2)
  expect(second.mark).toBe('fine')
  const page = await levelPage(db, printerId)
  expect(page.levels.map(l => l.mark)).toEqual(['fine', 'look'])
  expect(page.latest).toMatchObject({ id: second.id, bedC: 100 })
  expect(await levelStands(db, printerId, 100)).toMatchObject({ mark: 'fine' })
  // the same bed, asked to be hotter than it was levelled
  expect(await levelStands(db, printerId, 140)).toMatchObject({ mark: 'look', action: 'Level it hot' })
  await db.transaction(tx =>
    saveStrike(tx, { target: 'level', targetId: second.id, reason: 'the leaf was bent', confirmed: [] }, 1),
  )
  expect((await levelPage(db, printerId)).latest!.id).toBe(first.id)
})

test('a Z that reads 0 after a power-off is told until it is set again; nothing set, nothing lost', async () => {
  expect((await refusal(z('feeler', -1.25, 9))).errors![0]).toMatchObject({ field: 'way' })
  expect(await zLostOn(db, headId)).toBeNull()
  await z('feeler', -1.25, 9, { way: 'larger is higher' })
  expect((await z('power-off', -1.25, 8)).lost).toBeNull()
  expect((await z('power-off', 0, 7)).lost).toMatch(/reads 0\.000 mm after a power-off; -1\.250 was set/)
  const page = await levelPage(db, printerId)
  expect(page.heads[0]).toMatchObject({ way: 'larger is higher', lost: expect.stringMatching(/not kept/) })
  expect(page.heads[0]!.records).toHaveLength(3)
  await z('feeler', -1.24, 6)
  expect(await zLostOn(db, headId)).toBeNull()
})
