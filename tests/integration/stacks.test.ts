/* eslint-disable max-lines -- one shop, used from entry to entry */
/**
 * Stacks as the records keep them: described, changed, undone, edited, imported; what was entered before stacks is
 * kept.
 */
import { sql } from 'drizzle-orm'
import { describe, expect, test } from 'vitest'
import { STARTING_STACKS } from '#core/limits'
import { dryerSchema } from '#shared/entries/prepare'
import { changeSchema, fittingSchema, partFields, printerSchema, shelfPartSchema } from '#shared/entries/printers'
import { materialSchema, materialValueSchema, practiceSetSchema } from '#shared/entries/materials'
import { nozzleSchema } from '#shared/entries/nozzles'
import { strikeSchema } from '#shared/entries/log'
import type { Connection } from '../../server/db/client'
import { migrationFiles } from '../../server/db/files'
import { refreshMissingCeilings, shopRules, zoneLimits } from '../../server/records/printers/ceilings'
import { buying, equip } from '../../server/records/bench/equip'
import { saveFitting } from '../../server/records/printers/fittings'
import { floor } from '../../server/records/bench/floor'
import { saveGauge } from '../../server/records/nozzles/gauges'
import { addMaterial, addMaterialValue, addPracticeSet, listAskings } from '../../server/records/materials/materials'
import { saveRun } from '../../server/records/runs/runs'
import { addDryer } from '../../server/records/prepare/dryers'
import { addPrinter, addShelfPart, saveChange } from '../../server/records/printers/stack-change'
import { listChanges, listShelf, listSpareNozzles, listStacks } from '../../server/records/printers/stack-read'
import { addNozzle } from '../../server/records/nozzles/nozzles'
import { editRecord } from '../../server/records/entry/edits'
import { saveStrike } from '../../server/records/entry/strikes'
import { ago, freshDatabase, gaugeEntry, materialEntry, refusal, runEntry, smallShop } from './support'

const { db } = await freshDatabase()
const shop = await smallShop(db)
const tx = <T>(work: (c: Connection) => Promise<T>) => db.transaction(work)
const soon = () => new Date(Date.now() + 60_000).toISOString()
const stackEntry = (key: string, name: string) =>
  printerSchema.parse({ ...STARTING_STACKS.find(s => s.key === key)!, name })
const of = async (name: string) => (await listStacks(db)).find(p => p.name === name)!
const part = async (name: string, role: string) => (await of(name)).parts.find(p => p.role === role)!
const change = (printerId: number, more: object) =>
  changeSchema.parse({ printerId, text: 'a change', occurredAt: soon(), ...more })
const ceiling = async (name: string, zone: string) =>
  zoneLimits(await of(name), await shopRules(db)).find(l => l.zone === zone)!

const { id, headIds } = await tx(c => addPrinter(c, stackEntry('open frame', 'Aire'), 1))

describe('a printer from a starting stack', () => {
  test('has its parts with the start values of their kinds, on their heads', async () => {
    const p = await of('Aire')
    expect(p.parts).toHaveLength(STARTING_STACKS[0]!.parts.length)
    expect(p.parts.find(x => x.role === 'liner')).toMatchObject({
      limitC: 250,
      headId: headIds[0],
      basis: 'start value',
      enteredBy: 'Day technician',
      version: 1,
    })
    expect(p.parts.find(x => x.role === 'sheet')).toMatchObject({ headId: null, details: { surface: 'PEI' } })
    expect(await ceiling('Aire', 'hotend')).toMatchObject({
      limitC: 240,
      part: 'PTFE liner to the nozzle',
      headId: headIds[0],
    })
    expect((await listChanges(db)).find(c => c.printerId === id)).toMatchObject({ kind: 'described', struck: null })
  })
  test('one set of dryers: those of Prepare stand beside every printer, a stack brings none', async () => {
    expect((await of('Aire')).dryers).toEqual([])
    const dryer = (more: object) =>
      dryerSchema.parse({ name: 'Bench', kind: 'vented', ceilingC: 70, basis: 'nameplate', ...more })
    const { id: first } = await tx(c => addDryer(c, dryer({}), 1))
    await tx(c => addDryer(c, dryer({ name: 'Gone', ceilingC: 120, withdrawn: true }), 1))
    for (const name of ['Aire', 'Ribble'])
      expect((await of(name)).dryers).toMatchObject([{ id: `dryer ${first}`, name: 'Bench', details: { reachC: 70 } }])
    const dried = printerSchema.safeParse({
      ...STARTING_STACKS[0]!,
      name: 'Two',
      parts: [...STARTING_STACKS[0]!.parts, { kind: 'filament dryer, 70', head: null }],
    })
    expect(dried.error!.issues[0]!.message).toMatch(/dryers belong to the shop, not to a printer/)
    const added = changeSchema.safeParse({
      printerId: id,
      text: 'a dryer',
      occurredAt: soon(),
      add: [{ kind: 'drying oven, 160' }],
    })
    expect(added.error!.issues[0]!.message).toMatch(/^Dryers belong to the shop/)
    expect(shelfPartSchema.safeParse({ kind: 'vacuum dryer' }).success).toBe(false)
  })
  test('two heads of one name, a name that is taken', async () => {
    const two = { ...stackEntry('open frame', 'Two'), heads: [{ name: 'head' }, { name: 'Head' }] }
    expect((await refusal(tx(c => addPrinter(c, two, 1)))).errors![0]!.field).toBe('heads.1.name')
    expect((await refusal(tx(c => addPrinter(c, stackEntry('open frame', 'aire'), 1)))).errors![0]!.message).toBe(
      'There is already a printer aire',
    )
  })
})

test('the ceilings that are kept are those of the stacks, after every kind of change', async () => {
  const kept = async () => (await floor(db)).printers.map(p => [p.name, p.limits])
  const now = async () => {
    const rules = await shopRules(db)
    return (await listStacks(db)).map(p => [p.name, JSON.parse(JSON.stringify(zoneLimits(p, rules)))])
  }
  for (const [key, name] of [
    ['hot machine', 'Hot'],
    ['bed-heated enclosure', 'Warm'],
  ] as const)
    await tx(c => addPrinter(c, stackEntry(key, name), 1))
  expect(await kept()).toEqual(await now())
  const warm = (await of('Warm')).heads[0]!,
    nozzle = await tx(c => addNozzle(c, nozzleSchema.parse({ tag: 'N-3', typeId: shop.typeId, receivedAt: ago(1) }), 1))
  const fitted = await tx(c =>
    saveFitting(c, fittingSchema.parse({ kind: 'fit', nozzleId: nozzle.id, headId: warm.id, occurredAt: soon() }), 1),
  )
  expect(await kept()).toEqual(await now())
  const [set] = await db.execute<{ version: number }>(sql`select version from settings`)
  await tx(c => editRecord(c, 'rules', 1, set!.version, { guardHotendC: 20 }, 1))
  expect((await floor(db)).printers[0]!.limits[0]!.limitC).toBe(280)
  await tx(c => editRecord(c, 'rules', 1, set!.version + 1, { guardHotendC: 10 }, 1))
  await tx(c => saveStrike(c, strikeSchema.parse({ target: 'fitting', targetId: fitted.id, reason: 'a test' }), 1))
  expect(await kept()).toEqual(await now())
  await db.execute(sql`delete from stack_ceilings`)
  expect((await floor(db)).printers[0]!.limits).toEqual([])
  await refreshMissingCeilings(db)
  expect(await kept()).toEqual(await now())
})

describe('a change', () => {
  test('fits from the shelf, takes the old part to it, raises the ceiling; striking it out undoes it', async () => {
    const spare = await tx(c => addShelfPart(c, shelfPartSchema.parse({ kind: 'all-metal heat break' }), 1))
    const liner = await part('Aire', 'liner'),
      old = await part('Aire', 'heat break')
    const done = await tx(c =>
      saveChange(
        c,
        change(id, { text: 'All-metal', remove: [liner.id, old.id], fit: [{ partId: spare.id, headId: headIds[0] }] }),
        2,
      ),
    )
    expect(done.limits.find(l => l.zone === 'hotend')).toMatchObject({ limitC: 290 })
    expect((await of('Aire')).parts.filter(p => p.role === 'heat break').map(p => [p.id, p.headId])).toEqual([
      [spare.id, headIds[0]],
    ])
    expect((await listShelf(db)).map(p => p.id)).toEqual([liner.id, old.id])
    await tx(c =>
      saveStrike(
        c,
        strikeSchema.parse({ target: 'stack change', targetId: done.id, reason: 'was another printer' }),
        1,
      ),
    )
    expect(await ceiling('Aire', 'hotend')).toMatchObject({ limitC: 240 })
    expect((await listShelf(db)).map(p => p.id)).toEqual([spare.id])
    expect((await listChanges(db)).find(c => c.id === done.id)!.struck).toMatchObject({ reason: 'was another printer' })
  })
  test('a part bought for it; the same part set otherwise leaves no second one on the shelf', async () => {
    const tube = await part('Aire', 'feed tube'),
      before = (await listShelf(db)).length
    await tx(c =>
      saveChange(
        c,
        change(id, {
          text: 'freed',
          remove: [tube.id],
          add: [{ kind: tube.kind, headId: headIds[0], details: { bendMm: 150 } }],
        }),
        1,
      ),
    )
    expect((await part('Aire', 'feed tube')).details.bendMm).toBe(150)
    expect(await listShelf(db)).toHaveLength(before)
  })
  test('with a nozzle: its fitting is logged as well', async () => {
    const n = await tx(c =>
      addNozzle(c, nozzleSchema.parse({ tag: 'N-7', typeId: shop.typeId, receivedAt: ago(5) }), 1),
    )
    expect((await listSpareNozzles(db)).map(x => x.tag)).toEqual(['N-3', 'N-7'])
    await tx(c => saveChange(c, change(id, { nozzles: [{ nozzleId: n.id, headId: headIds[0] }] }), 1))
    expect((await of('Aire')).heads[0]!.nozzle).toMatchObject({
      tag: 'N-7',
      material: 'hardened steel',
      boreMm: 0.4,
      insert: false,
    })
    expect((await listSpareNozzles(db)).map(x => x.tag)).toEqual(['N-3'])
    await tx(c => saveFitting(c, fittingSchema.parse({ kind: 'remove', nozzleId: n.id, occurredAt: soon() }), 1))
  })
  test.each([
    [
      'a part that is not there',
      async () => ({ remove: [(await part('Ribble', 'sensor')).id] }),
      'remove.0',
      /not on the printer/,
    ],
    [
      'a part that is not on the shelf',
      async () => ({ fit: [{ partId: (await part('Aire', 'sensor')).id }] }),
      'fit.0.partId',
      /not on the shelf/,
    ],
    [
      'a head of another printer',
      async () => ({ add: [{ kind: 'hardened gears', headId: shop.headId }] }),
      'add.0.headId',
      /no such head/,
    ],
    [
      'a head left without a sensor',
      async () => ({ remove: [(await part('Aire', 'sensor')).id] }),
      'remove',
      /without a temperature sensor/,
    ],
    [
      'a time before the part came',
      async () => ({ occurredAt: ago(2), remove: [(await part('Aire', 'gears')).id] }),
      'occurredAt',
      /was moved at/,
    ],
    [
      'the future',
      async () => ({
        occurredAt: new Date(Date.now() + 9e6).toISOString(),
        remove: [(await part('Aire', 'gears')).id],
      }),
      'occurredAt',
      /in the future/,
    ],
  ])('refused: %s, and nothing is stored', async (_, more, field, message) => {
    const before = await listStacks(db)
    const p = await refusal(more().then(m => tx(c => saveChange(c, change(id, m), 1))))
    expect(p.errors![0]).toMatchObject({ field, message: expect.stringMatching(message) })
    expect(await listStacks(db)).toEqual(before)
  })
  test('of two people who take the same part off, one is told', async () => {
    const gears = await part('Aire', 'gears')
    const results = await Promise.allSettled(
      [1, 2].map(who =>
        tx(c =>
          saveChange(
            c,
            change(id, {
              text: `by ${who}`,
              remove: [gears.id],
              add: [{ kind: 'hardened gears', headId: headIds[0] }],
            }),
            who,
          ),
        ),
      ),
    )
    expect(results.map(r => r.status).sort()).toEqual(['fulfilled', 'rejected'])
    expect((await of('Aire')).parts.filter(p => p.role === 'gears')).toHaveLength(1)
  })
  test('what later changes rest on is struck from the latest back; the first description stays', async () => {
    const changes = (await listChanges(db)).filter(c => c.printerId === id)
    const strike = (targetId: number) =>
      tx(c => saveStrike(c, strikeSchema.parse({ target: 'stack change', targetId, reason: 'a test' }), 1))
    expect((await refusal(strike(changes.find(c => c.kind === 'described')!.id))).title).toMatch(
      /correct its parts instead/,
    )
    const freed = changes.find(c => c.text === 'freed')!
    const tube = await part('Aire', 'feed tube')
    const later = await tx(c =>
      saveChange(
        c,
        change(id, { text: 'tube out', remove: [tube.id], add: [{ kind: 'no feed tube', headId: headIds[0] }] }),
        1,
      ),
    )
    expect((await refusal(strike(freed.id))).title).toMatch(/“tube out”/)
    await strike(later.id)
    await strike(freed.id)
    expect((await part('Aire', 'feed tube')).details.bendMm).toBe(90)
  })
})

describe('parts and materials as records', () => {
  test("a part's limit is edited with who and when; a stale edit shows both", async () => {
    const belt = await part('Ribble', 'belts')
    const values = partFields.parse({ ...belt, limitC: 90, basis: 'data sheet', note: 'another grade' })
    await tx(c => editRecord(c, 'parts', belt.id, 1, values, 2))
    expect(await part('Ribble', 'belts')).toMatchObject({ limitC: 90, enteredBy: 'Night technician', version: 2 })
    expect((await refusal(tx(c => editRecord(c, 'parts', belt.id, 1, values, 1)))).type).toBe('urn:iron-nozzle:stale')
  })
  test('a material with facts and sets; a fact added, one that contradicts, a set of the same name', async () => {
    const fact = (value: number) => ({ value, basis: 'data sheet', note: '' })
    const set = {
      name: 'enclosed',
      chamber: 'helps',
      chamberMinC: 50,
      bedMinC: 100,
      bedMaxC: 120,
      dryMinC: 70,
      basis: 'practice',
    }
    const m = await tx(c =>
      addMaterial(
        c,
        materialSchema.parse({
          ...materialEntry('PA12-CF10'),
          facts: { nozzleMinC: fact(260), nozzleMaxC: fact(290) },
          sets: [set],
        }),
        1,
      ),
    )
    const stored = async () => (await listAskings(db)).find(x => x.id === m.id)!
    expect((await stored()).values.map(v => [v.key, v.value, v.basis])).toEqual([
      ['nozzleMinC', 260, 'data sheet'],
      ['nozzleMaxC', 290, 'data sheet'],
    ])
    expect((await stored()).sets[0]).toMatchObject({ name: 'enclosed', bedMinC: 100, withdrawn: false })
    await tx(c =>
      addMaterialValue(c, materialValueSchema.parse({ materialId: m.id, key: 'shortMaxC', ...fact(300) }), 1),
    )
    expect(
      (
        await refusal(
          tx(c =>
            addMaterialValue(c, materialValueSchema.parse({ materialId: m.id, key: 'shortMaxC', ...fact(310) }), 1),
          ),
        )
      ).errors![0]!.field,
    ).toBe('key')
    const v = (await stored()).values.find(x => x.key === 'nozzleMinC')!
    expect(
      (await refusal(tx(c => editRecord(c, 'material-values', v.id, 1, { key: 'nozzleMinC', ...fact(295) }, 1)))).title,
    ).toMatch(/contradict/)
    expect(
      (await refusal(tx(c => editRecord(c, 'material-values', v.id, 1, { key: 'meltC', ...fact(270) }, 1)))).errors![0]!
        .field,
    ).toBe('key')
    expect(await tx(c => editRecord(c, 'material-values', v.id, 1, { key: 'nozzleMinC', ...fact(265) }, 2))).toEqual({
      version: 2,
    })
    expect(
      (
        await refusal(
          tx(c =>
            addPracticeSet(c, practiceSetSchema.parse({ materialId: m.id, set: { ...set, name: 'Enclosed' } }), 1),
          ),
        )
      ).errors![0]!.field,
    ).toBe('set.name')
    expect(
      (await refusal(tx(c => addMaterial(c, materialSchema.parse({ ...materialEntry('X'), sets: [set, set] }), 1))))
        .errors![0]!.field,
    ).toBe('sets.1.name')
  })
})

test("equip reads all of it; the mix is that of the last 90 days; buying knows the shop's own wear", async () => {
  await tx(c => saveRun(c, runEntry(shop, { endedAt: ago(3) }), 1))
  await tx(c => saveRun(c, runEntry(shop, { endedAt: ago(100) }, { kind: 'grams', grams: 50 }), 1).catch(() => null))
  const e = await equip(db)
  expect(e.printers.map(p => p.name)).toEqual(['Ribble', 'Aire', 'Hot', 'Warm'])
  expect(e.rules).toMatchObject({ guardHotendC: 10, guardBedC: 5, guardChamberC: 5, roomC: 23 })
  expect(e.mix).toEqual([{ materialId: shop.materialId, kg: 0.312 }])
  await tx(c => saveGauge(c, gaugeEntry(shop, { goMm: 0.41, noGoMm: 0.42 }), 1))
  const b = await buying(db)
  expect(b.mix).toEqual([expect.objectContaining({ name: 'PA6-CF20', kg: 0.312 })])
  expect(b.mix[0]!.fillerFraction).toBeCloseTo(0.2, 9)
  expect(b.wear.find(w => w.material === 'hardened steel')).toMatchObject({ sisters: 1, sd: 0.8 })
  expect(b.wear).toHaveLength(7)
})

test('limits entered before stacks become parts with their guard band put back', async () => {
  const third = migrationFiles().find(m => m.name.startsWith('0003'))!
  // rebuild what was there before, in a schema of its own, and let the migration's own SQL move it
  await expect(
    tx(async c => {
      for (const drop of ['part_places', 'standing_stack_changes'])
        await c.execute(sql.raw(`drop view ${drop} cascade`))
      for (const drop of [
        'stack_ceilings',
        'part_events',
        'stack_changes',
        'parts',
        'material_values',
        'practice_sets',
      ])
        await c.execute(sql.raw(`drop table ${drop} cascade`))
      await c.execute(sql.raw('alter table materials drop column ventilation'))
      for (const col of [
        'guard_hotend_c',
        'guard_bed_c',
        'guard_chamber_c',
        'room_c',
        'bend_safety',
        'coarse_c',
        'labour_per_hour',
        'downtime_per_hour',
        'downtime_hours',
        'scrap_per_swap',
        'currency',
        'prices',
      ])
        await c.execute(sql.raw(`alter table settings drop column ${col}`))
      await c.execute(
        sql.raw(
          `create table limits (id serial, printer_id int, head_id int, zone text, limit_c double precision, ` +
            `part text, basis text, note text default '', entered_by int, entered_at timestamptz default now())`,
        ),
      )
      await c.execute(
        sql.raw(
          `insert into limits (printer_id, head_id, zone, limit_c, part, basis, entered_by) values (` +
            `${shop.printerId}, ${shop.headId}, 'nozzle', 290, 'sensor', 'practice', 1), (${shop.printerId}, ` +
            `null, 'bed', 110, 'heater', 'nameplate', 1), (${shop.printerId}, null, 'chamber', 65, 'belt', ` +
            `'data sheet', 2)`,
        ),
      )
      await c.execute(
        sql.raw(`alter table strikes disable trigger all; delete from strikes where target = 'stack change'`),
      )
      await c.execute(sql.raw(third.sql))
      const ribble = (await listStacks(c)).find(p => p.name === 'Ribble')!
      expect(ribble.parts.map(p => [p.role, p.name, p.limitC, p.headId, p.basis])).toEqual([
        ['other hotend part', 'sensor', 300, shop.headId, 'practice'],
        ['other bed part', 'heater', 115, null, 'nameplate'],
        ['other chamber part', 'belt', 70, null, 'data sheet'],
        ['enclosure', 'enclosure', null, null, 'practice'],
        ['lid', 'lid', null, null, 'practice'],
      ])
      expect(zoneLimits(ribble, await shopRules(c)).map(l => [l.zone, l.limitC])).toEqual([
        ['hotend', 290],
        // what stands in the air that the bed makes, by practice
        ['bed', expect.closeTo(23 + 42 / 0.52, 6)],
        ['bed', 110],
        ['chamber', 65],
      ])
      throw new Error('undo')
    }),
  ).rejects.toThrow('undo')
})

test('all stacks, kept in memory, are read again after a change, and never show what was rolled back', async () => {
  const of = async (c: Connection, id: number) =>
    (await listStacks(c)).flatMap(p => p.parts).find(x => x.id === id)!.limitC
  const part = (await listStacks(db)).flatMap(p => p.parts).find(x => x.limitC !== null)!
  const lower = (c: Connection, by: number) =>
    editRecord(c, 'parts', part.id, part.version, { limitC: part.limitC! - by, basis: 'data sheet' }, 1)
  await tx(async c => {
    await lower(c, 7)
    expect(await of(c, part.id)).toBe(part.limitC! - 7)
    throw new Error('given up')
  }).catch(() => {})
  expect(await of(db, part.id)).toBe(part.limitC)
  await tx(c => lower(c, 5))
  expect(await of(db, part.id)).toBe(part.limitC! - 5)
})
