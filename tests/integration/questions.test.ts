/** What is asked before it is stored, because it can hardly be so: runs, fittings, weights. */
import { sql } from 'drizzle-orm'
import { expect, test } from 'vitest'
import { nozzleSchema } from '#shared/entries/nozzles'
import { fittingSchema } from '#shared/entries/printers'
import { dryerSchema, dryingSchema } from '#shared/entries/prepare'
import { spoolEventSchema, spoolSchema } from '#shared/entries/spools'
import { saveFitting } from '../../server/records/printers/fittings'
import { addPrinter } from '../../server/records/printers/stack-change'
import { addNozzle } from '../../server/records/nozzles/nozzles'
import { saveGauge } from '../../server/records/nozzles/gauges'
import { addDryer } from '../../server/records/prepare/dryers'
import { saveDrying } from '../../server/records/prepare/dryings'
import { prepare } from '../../server/records/prepare/prepare'
import { saveRun } from '../../server/records/runs/runs'
import { addSpool, listSpools, saveSpoolEvent } from '../../server/records/spools/spools'
import type { Connection } from '../../server/db/client'
import { ago, freshDatabase, gaugeEntry, printerEntry, refusal, runEntry, smallShop } from './support'

const { db } = await freshDatabase()
const shop = await smallShop(db)
const tx = <T>(work: (c: Connection) => Promise<T>) => db.transaction(work)
const HOUR = 1 / 24
type More = Parameters<typeof runEntry>[1]
const run = (more: More, g = 100) => tx(c => saveRun(c, runEntry(shop, more, { kind: 'grams', grams: g }), 1))
const codes = async (work: Promise<unknown>) => (await refusal(work)).questions!.map(q => q.code)

test('two runs that overlap on one head, and the same run twice, are asked; one after the other is not', async () => {
  await run({ endedAt: ago(20), hours: 6 })
  await run({ endedAt: ago(20 - 6 * HOUR), hours: 5.9 })
  const p = await refusal(run({ endedAt: ago(20 + 3 * HOUR), hours: 6 }, 80))
  expect(p.questions).toMatchObject([{ code: 'overlap:0', field: 'endedAt' }])
  expect(p.questions![0]!.message).toMatch(/“cable guide” took this head 6 h until .* Is that right\?/)
  const again = { endedAt: ago(20 + 0.1 * HOUR), hours: 6 }
  expect(await codes(run(again))).toEqual(['same-run:0'])
  expect((await run({ ...again, confirmed: ['same-run:0'] })).runId).toBeGreaterThan(0)
})

test('a mass no bore passes in that time; above what the shop has set, in its words', async () => {
  const p = await refusal(run({ endedAt: ago(15), hours: 0.5 }, 90))
  expect(p.questions).toMatchObject([{ code: 'flow:0', field: 'tools.0.amount' }])
  expect(p.questions![0]!.message).toMatch(
    /90\.0 g in 0\.5 h is 41 mm³\/s all the way; nothing here passes more than 35/,
  )
  await db.execute(sql`update settings set highest_flow_mm3_s = 60`)
  await run({ endedAt: ago(15), hours: 0.5 }, 90)
  await db.execute(sql`update settings set highest_flow_mm3_s = 35`)
})

test('a nozzle fitted after the run began is asked', async () => {
  const late = await tx(c =>
    addNozzle(c, nozzleSchema.parse({ tag: 'N-late', typeId: shop.typeId, receivedAt: ago(20) }), 1),
  )
  const fit = (nozzleId: number, days: number) =>
    tx(c =>
      saveFitting(c, fittingSchema.parse({ kind: 'fit', nozzleId, headId: shop.headId, occurredAt: ago(days) }), 1),
    )
  await fit(late.id, 10)
  const entry = (hours: number) =>
    tx(c => saveRun(c, runEntry({ ...shop, nozzleId: late.id }, { endedAt: ago(10 - 2 * HOUR), hours }), 1))
  const p = await refusal(entry(6))
  expect(p.questions).toMatchObject([{ code: 'fitted-late:0', field: 'tools.0.nozzleId' }])
  expect(p.questions![0]!.message).toMatch(
    /^N-late was fitted .* after this run had begun \(.*\)\. Did all of it go through/,
  )
  await fit(shop.nozzleId, 9)
})

test('fitting asks before it takes a nozzle off another printer, and before one that is worn out', async () => {
  const other = await tx(c => addPrinter(c, printerEntry('Swale'), 1))
  const fit = (headId: number, confirmed: string[] = []) =>
    tx(c =>
      saveFitting(
        c,
        fittingSchema.parse({ kind: 'fit', nozzleId: shop.nozzleId, headId, occurredAt: ago(0.2), confirmed }),
        1,
      ),
    )
  const p = await refusal(fit(other.headIds[0]!))
  expect(p.questions).toMatchObject([{ code: 'elsewhere' }])
  expect(p.questions![0]!.message).toBe('N-1 sits on Ribble, which is left without a nozzle. Take it off there?')
  expect(await fit(other.headIds[0]!, ['elsewhere'])).toMatchObject({ tag: 'N-1', removed: null })

  await run({ endedAt: ago(1), confirmed: [`over-spool:${shop.spoolId}`] }, 40_000)
  const now = (more: object) =>
    tx(c => saveFitting(c, fittingSchema.parse({ nozzleId: shop.nozzleId, occurredAt: ago(0.1), ...more }), 1))
  await now({ kind: 'remove' })
  const worn = await refusal(now({ kind: 'fit', headId: shop.headId, occurredAt: ago(0.05) }))
  expect(worn.questions).toMatchObject([{ code: 'worn-out' }])
  expect(worn.questions![0]!.message).toMatch(
    /^N-1: (over )?\d+ % chance that it is past 0\.44 mm\. Fit it all the same\?/,
  )
  await tx(c => saveGauge(c, gaugeEntry(shop, { shape: ['cracked body'], occurredAt: ago(0.08) }), 1))
  expect(
    (await refusal(now({ kind: 'fit', headId: shop.headId, occurredAt: ago(0.05) }))).questions![0]!.message,
  ).toMatch(/last gauge found: cracked body/)
})

test('heavier than the spool can be is asked: by its label, and by its last weighing and the runs since', async () => {
  const { id } = await tx(c =>
    addSpool(
      c,
      spoolSchema.parse({ tag: 'S-w', materialId: shop.materialId, diameterMm: 1.75, netG: 1000, tareG: 200 }),
      1,
    ),
  )
  const weigh = (grossG: number, days: number, confirmed: string[] = []) =>
    tx(c =>
      saveSpoolEvent(
        c,
        spoolEventSchema.parse({ spoolId: id, kind: 'weighed', grossG, occurredAt: ago(days), confirmed }),
        1,
      ),
    )
  await weigh(1230, 8) // makers fill a little more
  const p = await refusal(weigh(1320, 7.9))
  expect(p.questions).toMatchObject([{ code: 'too-heavy:S-w', field: 'grossG' }])
  expect(p.questions![0]!.message).toBe('It weighed 1230 g before: 1320 g is more. Is it S-w that was weighed?')
  await tx(c =>
    saveRun(
      c,
      runEntry(
        { ...shop, spoolId: id },
        { endedAt: ago(7), confirmed: ['not-fitted:0'] },
        { kind: 'grams', grams: 400 },
      ),
      1,
    ),
  )
  expect((await refusal(weigh(1100, 6))).questions![0]!.message).toBe(
    'It weighed 1230 g before, and runs took 400 g since: 1100 g is more. Is it S-w that was weighed?',
  )
  await weigh(1100, 6, ['too-heavy:S-w'])
  expect((await listSpools(db)).find(s => s.id === id)).toMatchObject({ leftG: 900, leftBy: 'weighing' })
})

test('a spool is opened once: again asks, and so does opening one that was printed from', async () => {
  const { id } = await tx(c =>
    addSpool(c, spoolSchema.parse({ tag: 'S-o', materialId: shop.materialId, diameterMm: 1.75, netG: 1000 }), 1),
  )
  const at = async () => (await prepare(db)).spools.find(s => s.id === id)!
  const open = (days: number, confirmed: string[] = []) =>
    tx(c =>
      saveSpoolEvent(c, spoolEventSchema.parse({ spoolId: id, kind: 'opened', occurredAt: ago(days), confirmed }), 1),
    )
  expect((await at()).place).toBe('sealed')
  // printed from: it is open, whatever nobody logged
  const by = (days: number, g: number) =>
    tx(c =>
      saveRun(
        c,
        runEntry(
          { ...shop, spoolId: id },
          { endedAt: ago(days), confirmed: ['not-fitted:0'] },
          { kind: 'grams', grams: g },
        ),
        1,
      ),
    )
  await by(6, 50)
  expect(await at()).toMatchObject({ place: 'room', since: expect.any(String) as string })
  const p = await refusal(open(5))
  expect(p.questions).toMatchObject([{ code: 'opened-before', field: 'kind' }])
  expect(p.questions![0]!.message).toMatch(/^S-o was printed from .*, so it was open then\./)
  await open(7) // before that: it was opened then
  expect((await refusal(open(5))).questions![0]!.message).toMatch(/^S-o was opened .*, so it was open then\./)
  await open(5, ['opened-before'])
  expect((await at()).place).toBe('room')
})

test('a drying does not begin before something that is logged already: it cannot have been elsewhere', async () => {
  const { id } = await tx(c =>
    addSpool(c, spoolSchema.parse({ tag: 'S-d', materialId: shop.materialId, diameterMm: 1.75, netG: 1000 }), 1),
  )
  const { id: dryerId } = await tx(c =>
    addDryer(c, dryerSchema.parse({ name: 'Small', kind: 'vented', ceilingC: 45, basis: 'nameplate' }), 1),
  )
  const out = (days: number) =>
    tx(c => saveSpoolEvent(c, spoolEventSchema.parse({ spoolId: id, kind: 'out', occurredAt: ago(days) }), 1))
  const dry = (days: number) =>
    tx(c =>
      saveDrying(c, dryingSchema.parse({ spoolId: id, dryerId, setC: 40, plannedH: 8, occurredAt: ago(days) }), 1),
    )
  await db.execute(sql`insert into material_values (material_id, key, value, basis, note, entered_by)
    values (${shop.materialId}, 'dryHighestC', 60, 'practice', '', 1) on conflict do nothing`)
  await out(0.25)
  const p = await refusal(dry(0.4))
  expect(p.errors).toMatchObject([{ field: 'occurredAt' }])
  expect(p.errors![0]!.message).toMatch(/^S-d was “out” .* after this: begin the drying later/)
  expect((await dry(0.2)).id).toBeGreaterThan(0)
})

test('weights before and after a run are weighings: they win over sums, and are asked like any other', async () => {
  const { id } = await tx(c =>
    addSpool(
      c,
      spoolSchema.parse({ tag: 'S-r', materialId: shop.materialId, diameterMm: 1.75, netG: 1000, tareG: 200 }),
      1,
    ),
  )
  const by = (beforeG: number, afterG: number, days: number, confirmed: string[] = []) =>
    tx(c =>
      saveRun(
        c,
        runEntry(
          { ...shop, spoolId: id },
          { endedAt: ago(days), confirmed: ['not-fitted:0', ...confirmed] },
          { kind: 'weights', beforeG, afterG },
        ),
        1,
      ),
    )
  await by(1150, 1010, 5)
  // 60 g went somewhere before: what was weighed counts, not 1000 less 140
  expect((await listSpools(db)).find(s => s.id === id)).toMatchObject({ leftG: 810, leftBy: 'weighing' })
  expect(await codes(by(1120, 1000, 4))).toEqual(['too-heavy:S-r'])
  expect((await refusal(by(300, 150, 4))).errors).toMatchObject([{ field: 'tools.0.amount.afterG' }])
})
