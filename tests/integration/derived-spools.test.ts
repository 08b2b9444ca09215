/**
 * What is kept because it is read often is what a fresh reading of the whole log gives, to the last digit, whatever is
 * entered, entered late, edited or struck out; and nothing that was worked out before counts after it.
 */
import { sql } from 'drizzle-orm'
import { afterEach, describe, expect, test } from 'vitest'
import { DRYING_MODEL } from '#core/drying'
import { EARLIER_RUNS, type SpoolKind } from '#shared/choices'
import { dryerSchema, dryingSchema } from '#shared/entries/prepare'
import { endingSchema } from '#shared/entries/log'
import { spoolEventSchema, spoolSchema } from '#shared/entries/spools'
import { editRecord } from '../../server/records/entry/edits'
import { saveEnding } from '../../server/records/entry/endings'
import { addMaterialValue } from '../../server/records/materials/materials'
import { materialValueSchema } from '#shared/entries/materials'
import { addDryer } from '../../server/records/prepare/dryers'
import { saveDrying } from '../../server/records/prepare/dryings'
import { airAndFactor } from '../../server/records/spools/factor'
import { spoolLogs } from '../../server/records/spools/log'
import { stateOf } from '../../server/records/spools/moisture'
import { addSpool, listSpools, saveSpoolEvent } from '../../server/records/spools/spools'
import { forgetStands, spoolStates } from '../../server/records/spools/stands'
import { entriesOf } from './derived-support'
import { ago, freshDatabase, smallShop } from './support'

const { db } = await freshDatabase()
const shop = await smallShop(db)
const { tx, run, strike } = entriesOf(db, shop)
const event = (spoolId: number, kind: SpoolKind, days: number, more: object = {}) =>
  tx(c =>
    saveSpoolEvent(
      c,
      spoolEventSchema.parse({ spoolId, kind, occurredAt: ago(days), confirmed: ['opened-before'], ...more }),
      1,
    ),
  )
const dryer = await tx(c =>
  addDryer(c, dryerSchema.parse({ name: 'Dryer', kind: 'vented', ceilingC: 90, timeOutH: 6, basis: 'nameplate' }), 1),
)
const dried = async (from: number, to: number | null, lostG = 4) => {
  const { id } = await tx(c =>
    saveDrying(
      c,
      dryingSchema.parse({
        spoolId: shop.spoolId,
        dryerId: dryer.id,
        setC: 70,
        plannedH: 4,
        grossG: 1000,
        occurredAt: ago(from),
        confirmed: [`too-heavy:S-1`, 'hub:polycarbonate'],
      }),
      1,
    ),
  )
  if (to !== null)
    await tx(c =>
      saveEnding(
        c,
        endingSchema.parse({ target: 'drying', targetId: id, grossG: 1000 - lostG, occurredAt: ago(to) }),
        1,
      ),
    )
  return id
}
await editSpool({ hub: 'polycarbonate' })
await tx(c =>
  addMaterialValue(
    c,
    materialValueSchema.parse({ materialId: shop.materialId, key: 'dryHighestC', value: 90, basis: 'data sheet' }),
    1,
  ),
)

async function editSpool(values: object): Promise<void> {
  const [row] = await db.execute<{ version: number }>(sql`select version from spools where id = ${shop.spoolId}`)
  await tx(c => editRecord(c, 'spools', shop.spoolId, row!.version, values as Record<string, unknown>, 1))
}

/** Kept and fresh states at one moment, and once more as another process reads them. */
async function same(): Promise<void> {
  const now = Date.now()
  const { air, wound } = await airAndFactor(db)
  const fresh = (await spoolLogs(db)).map(s => stateOf(s, air, wound, now))
  const kept = await spoolStates(db, now)
  expect(kept.spools).toEqual(fresh)
  forgetStands()
  expect((await spoolStates(db, now)).spools).toEqual(fresh)
}

describe('a spool after its last event', () => {
  afterEach(same)

  test('taken out, boxed, printed from, and then something that happened before', async () => {
    await event(shop.spoolId, 'opened', 20)
    await same()
    await event(shop.spoolId, 'in', 12, { rh: 15 })
    await same()
    await run(5)
    await same()
    await event(shop.spoolId, 'out', 15) // late
  })
  test('what is struck out drops what rested on it', async () => {
    const { id } = await event(shop.spoolId, 'out', 3, { rh: 80, roomC: 30 })
    await same()
    await strike('spool event', id)
    const { runId } = await run(2)
    await same()
    await strike('run', runId)
  })
  test('dried, weighed, and the drying struck out: the factor goes with it', async () => {
    const before = (await airAndFactor(db)).wound
    expect(before).toMatchObject({ weighings: 0 })
    const id = await dried(1.9, 1.7)
    expect((await airAndFactor(db)).wound.weighings).toBe(1)
    await same()
    await strike('drying', id)
    expect((await airAndFactor(db)).wound).toEqual(before)
  })
  test('a dryer that switches itself off in between moves the spool without an entry', async () => {
    await dried(0.1, null)
    const on = (await spoolStates(db)).spools[0]!
    expect(on.place).toBe('dryer')
    const later = Date.now() + 6 * 3_600_000
    const off = await spoolStates(db, later)
    expect(off.spools[0]!.place).toBe('room')
    const { air, wound } = await airAndFactor(db)
    expect(off.spools).toEqual((await spoolLogs(db)).map(s => stateOf(s, air, wound, later)))
  })
  test('its material, the shop’s air, its dryer and its own facts count', async () => {
    const [m] = await db.execute<{ version: number }>(sql`select version from materials where id = ${shop.materialId}`)
    const [fibre, kept] = [{ fillerFraction: 0.3 }, [EARLIER_RUNS.keep]]
    await tx(c => editRecord(c, 'materials', shop.materialId, m!.version, fibre, 1, kept))
    await same()
    const [set] = await db.execute<{ version: number }>(sql`select version from settings`)
    await tx(c => editRecord(c, 'settings', 1, set!.version, { roomRh: 65 }, 1))
    await same()
    await tx(c => editRecord(c, 'dryers', dryer.id, 1, { kind: 'oven' }, 1))
    await same()
    await editSpool({ tareG: 180, tag: 'S-1b' })
    expect((await spoolStates(db)).spools[0]!.tag).toBe('S-1b')
  })
  test('what another model worked out is not taken', async () => {
    expect(DRYING_MODEL).toBeGreaterThan(0)
    await spoolStates(db)
    await db.execute(sql`update spool_stands set basis = 'another model', stand = '{"place": "sealed"}'`)
    forgetStands()
  })
  test('one that is used up is not worked out, and comes back when that is struck out', async () => {
    const { id } = await event(shop.spoolId, 'finished', 0)
    expect((await spoolStates(db)).spools).toEqual([])
    expect((await listSpools(db))[0]).toMatchObject({ inUse: false, place: 'finished' })
    await strike('spool event', id)
    expect((await spoolStates(db)).spools).toHaveLength(1)
  })
})

test('two saves on one spool at once: the later reading has both', async () => {
  const other = await tx(c =>
    addSpool(
      c,
      spoolSchema.parse({ tag: 'S-2', materialId: shop.materialId, diameterMm: 1.75, netG: 500, tareG: 200 }),
      1,
    ),
  )
  await Promise.all([
    ...Array.from({ length: 8 }, (_, i) => event(other.id, 'weighed', 8 - i, { grossG: 690 - 10 * i })),
    ...Array.from({ length: 8 }, () => spoolStates(db)),
  ])
  await same()
  expect((await listSpools(db, [other.id]))[0]!.leftG).toBe(420)
})
