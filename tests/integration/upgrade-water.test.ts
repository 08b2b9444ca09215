/**
 * A database of main before dryness wanted proof: `before-water.sql.gz`, a dump of a small shop with a mark that a
 * person entered, a spool that was weighed before and after its drying, one that was opened and boxed, and one that
 * stood in the room.
 */
import { sql } from 'drizzle-orm'
import { expect, test } from 'vitest'
import { listAskings } from '../../server/records/materials/materials'
import { listDryers } from '../../server/records/prepare/dryers'
import { listStacks } from '../../server/records/printers/stack-read'
import { airAndFactor } from '../../server/records/spools/factor'
import { spoolLogs } from '../../server/records/spools/log'
import { stateOf } from '../../server/records/spools/moisture'
import { listSpools } from '../../server/records/spools/spools'
import { fromDump } from './support'

const db = await fromDump('before-water.sql.gz')
const logs = await spoolLogs(db)
const { air, wound } = await airAndFactor(db)
// as soon as it was dumped: a state moves with the clock
const then = Math.max(
  ...logs.flatMap(l => [...l.events.map(e => Date.parse(e.at)), ...l.mass.weighings.map(w => w.at)]),
)
const water = (tag: string) =>
  stateOf(
    logs.find(l => l.tag === tag)!,
    air,
    wound,
    then + 28 * 3_600_000,
  ).water!

test('the mark that was entered is what usually prints; the others follow from polymer and filler', async () => {
  const pa = (await listAskings(db)).find(m => m.name === 'PA6-CF20')!
  expect(pa.values).toContainEqual(expect.objectContaining({ key: 'usualWater', value: 0.4, basis: 'data sheet' }))
  expect(water('S-1')).toMatchObject({ usual: 0.4, clean: 0.2 })
  expect(water('S-2')).toMatchObject({ usual: 0.05, clean: 0.02 })
  expect(water('S-3').usual).toBeCloseTo(0.44, 9)
})
test('opened and boxed is no longer dry; the hygrometer was never read, so it is not surely wet either', () => {
  expect(air.dryBoxReadAt).toBe(null)
  expect(water('S-2')).toMatchObject({ dryness: 'unknown', dried: false })
  expect(water('S-2').wound).toBeGreaterThan(0.45)
  expect(water('S-3').dryness).toBe('usual')
})
test('its weighings are its mass, and still make the factor', async () => {
  const s1 = (await listSpools(db)).find(s => s.tag === 'S-1')!
  expect(s1).toMatchObject({ leftG: 985, leftBy: 'weighing' })
  expect(wound.weighings).toBe(1)
  expect((await listSpools(db)).find(s => s.tag === 'S-2')).toMatchObject({ leftG: 1000, leftBy: 'label' })
})
test('the dryers that stacks brought are the shop’s, each once; the shop’s own stays what it is', async () => {
  const dryers = await listDryers(db)
  expect(dryers.map(d => [d.name, d.kind, d.ceilingC, d.withdrawn])).toEqual([
    ['Bench dryer', 'vented', 70, false],
    ['filament dryer, 55 °C', 'vented', 55, false],
  ])
  const stacks = await listStacks(db)
  expect(stacks.flatMap(p => p.parts).filter(p => p.role === 'dryer')).toEqual([])
  for (const p of stacks) expect(p.dryers.map(d => d.details.reachC)).toEqual([70, 55])
  // nothing was deleted
  const [kept] = await db.execute<{ n: number }>(sql`select count(*)::int n from parts where role = 'dryer'`)
  expect(kept!.n).toBeGreaterThan(1)
})
