/* eslint-disable max-lines -- one shop, used from entry to entry */
/** Runs, gauges, fittings and strikes as the records take them. */
import { sql } from 'drizzle-orm'
import { describe, expect, test } from 'vitest'
import { Scan, type FullScan } from '#core/gcode'
import { massG } from '#core/materials'
import { EARLIER_RUNS } from '#shared/choices'
import { fittingSchema } from '#shared/entries/printers'
import { jobSchema } from '#shared/entries/runs'
import { nozzleSchema } from '#shared/entries/nozzles'
import { spoolEventSchema, spoolSchema } from '#shared/entries/spools'
import { strikeSchema } from '#shared/entries/log'
import { floor } from '../../server/records/bench/floor'
import { refreshStale } from '../../server/records/nozzles/forecasts'
import { saveFitting } from '../../server/records/printers/fittings'
import { saveGauge } from '../../server/records/nozzles/gauges'
import { nozzleLogs } from '../../server/records/nozzles/history'
import { listRuns, saveRun } from '../../server/records/runs/runs'
import { nozzlePage, addNozzle } from '../../server/records/nozzles/nozzles'
import { listSpools, saveSpoolEvent, addSpool } from '../../server/records/spools/spools'
import { addMaterial } from '../../server/records/materials/materials'
import { addPrinter } from '../../server/records/printers/stack-change'
import { editRecord, listEdits } from '../../server/records/entry/edits'
import { saveStrike } from '../../server/records/entry/strikes'
import type { Connection } from '../../server/db/client'
import { ago, freshDatabase, gaugeEntry, materialEntry, printerEntry, refusal, runEntry, smallShop } from './support'

const { db } = await freshDatabase()
const shop = await smallShop(db)
const tx = <T>(work: (c: Connection) => Promise<T>) => db.transaction(work)
const log = async (id = shop.nozzleId) => (await nozzleLogs(db, [id]))[0]!

function jobOf(text: string, name = 'guide.gcode', diameter = 1.75) {
  const s = new Scan({ totalBytes: text.length, filamentDiameterMm: diameter })
  s.push(new TextEncoder().encode(text))
  return {
    name,
    contentSha256: 'ab'.repeat(32),
    sizeBytes: text.length,
    scan: s.finish() as FullScan & Record<string, unknown>,
  }
}
const rings = (tools: number[], layers = 100) =>
  [
    ...['M83', 'M104 S280', 'M140 S100', 'G1 F1200'],
    ...Array.from({ length: layers }, (_, l) => [
      `G1 Z${((l + 1) * 0.2).toFixed(1)}`,
      ...tools.map((t, i) => `T${i}\nG1 X${(l % 2) * 50} E${t}`),
    ]).flat(),
    '',
  ].join('\n')

describe('runs', () => {
  test('grams: fibre, wear and the effect in the answer', async () => {
    const effect = await tx(c => saveRun(c, runEntry(shop), 1))
    expect(effect.nozzles[0]).toMatchObject({ tag: 'N-1', extrudedG: 312, leftMaterial: 'PA6-CF20' })
    expect(effect.nozzles[0]!.fibreG).toBeCloseTo(62.4, 9)
    const { median, low80, high80 } = effect.nozzles[0]!.leftFibreKg!
    expect(median).toBeGreaterThan(0.2)
    expect(low80).toBeLessThan(median)
    expect(high80).toBeGreaterThan(median)
    expect((await log()).wearKg).toBeCloseTo(0.0624, 9)
  })
  test('metres and spool weights', async () => {
    const before = (await log()).extrudedG
    await tx(c => saveRun(c, runEntry(shop, {}, { kind: 'metres', metres: 50 }), 1))
    expect((await log()).extrudedG - before).toBeCloseTo(massG(50_000, 1.75, 1.228), 6)
    await tx(c => saveRun(c, runEntry(shop, {}, { kind: 'weights', beforeG: 700, afterG: 650.5 }), 1))
    expect((await log()).extrudedG - before).toBeCloseTo(massG(50_000, 1.75, 1.228) + 49.5, 6)
  })
  test('a job file comes with its run; a failed one counts what had been extruded', async () => {
    const job = jobSchema.parse(jobOf(rings([50])))
    const before = (await log()).extrudedG
    const whole = massG(5000, 1.75, 1.228)
    await tx(c => saveRun(c, runEntry(shop, { job }, { kind: 'job' }), 1))
    expect((await log()).extrudedG - before).toBeCloseTo(whole, 6)
    await tx(c =>
      saveRun(
        c,
        runEntry(
          shop,
          { job, outcome: 'failed', stopped: { kind: 'percent', value: 60 }, symptoms: ['warped'] },
          { kind: 'job' },
        ),
        1,
      ),
    )
    expect(((await log()).extrudedG - before - whole) / whole).toBeCloseTo(0.6, 1)
    await tx(c =>
      saveRun(
        c,
        runEntry(shop, { job, outcome: 'failed', stopped: { kind: 'weighed', value: 7 } }, { kind: 'job' }),
        1,
      ),
    )
    const { runs } = await listRuns(db, 3, null)
    expect(runs.find(r => r.stoppedKind === 'weighed')!.tools[0]).toMatchObject({
      extrudedG: expect.closeTo(7, 9),
      setC: 280,
    })
    const [jobs] = await db.execute<{ n: number }>(sql`select count(*)::int n from jobs`)
    expect(jobs!.n, 'the same file is stored once').toBe(1)
  })
  test('several tools may share a head', async () => {
    const job = jobSchema.parse(jobOf(rings([10, 30], 10), 'two.gcode'))
    const tool = (t: number) => ({
      tool: t,
      headId: shop.headId,
      nozzleId: shop.nozzleId,
      spoolId: shop.spoolId,
      amount: { kind: 'job' as const },
    })
    const before = (await log()).extrudedG
    await tx(c => saveRun(c, runEntry(shop, { job, tools: [tool(0), tool(1)], confirmed: ['over-spool:1'] }), 1))
    expect((await log()).extrudedG - before).toBeCloseTo(massG(400, 1.75, 1.228), 6)
  })
  test('what is impossible is refused at its field', async () => {
    expect((await refusal(tx(c => saveRun(c, runEntry(shop, { endedAt: ago(-1) }), 1)))).errors).toEqual([
      { field: 'endedAt', message: expect.stringContaining('future') },
    ])
    const bare = await tx(c => addMaterial(c, materialEntry('PA12 unknown', { densityGCm3: null }), 1))
    const spool = await tx(c =>
      addSpool(c, spoolSchema.parse({ tag: 'S-2', materialId: bare.id, diameterMm: 1.75, netG: 1000 }), 1),
    )
    const noDensity = await refusal(
      tx(c => saveRun(c, runEntry({ ...shop, spoolId: spool.id }, {}, { kind: 'metres', metres: 5 }), 1)),
    )
    expect(noDensity.errors![0]).toMatchObject({
      field: 'tools.0.spoolId',
      message: expect.stringContaining('S-2 has no density'),
    })
    const before = (await log()).extrudedG
    await tx(c => saveRun(c, runEntry({ ...shop, spoolId: spool.id }, {}, { kind: 'grams', grams: 5 }), 1))
    expect((await log()).extrudedG - before, 'grams need no density').toBeCloseTo(5, 9)
    const thick = await tx(c =>
      addSpool(c, spoolSchema.parse({ tag: 'S-3', materialId: shop.materialId, diameterMm: 2.85, netG: 1000 }), 1),
    )
    expect(
      (
        await refusal(
          tx(c =>
            saveRun(
              c,
              runEntry({ ...shop, spoolId: thick.id }, { job: jobSchema.parse(jobOf(rings([5]))) }, { kind: 'job' }),
              1,
            ),
          ),
        )
      ).errors![0]!.message,
    ).toMatch(/read for 1.75 mm/)
    const other = await tx(c => addPrinter(c, printerEntry('Wharfe'), 1))
    expect(
      (await refusal(tx(c => saveRun(c, runEntry({ ...shop, headId: other.headIds[0]! }), 1)))).errors![0]!.field,
    ).toBe('tools.0.headId')
  })
  test('more than the spool holds is asked, and stored once confirmed', async () => {
    const p = await refusal(tx(c => saveRun(c, runEntry(shop, {}, { kind: 'grams', grams: 5000 }), 1)))
    expect(p).toMatchObject({ status: 409, questions: [{ code: `over-spool:${shop.spoolId}` }] })
    const { runId } = await tx(c =>
      saveRun(c, runEntry(shop, { confirmed: [`over-spool:${shop.spoolId}`] }, { kind: 'grams', grams: 5000 }), 1),
    )
    await tx(c => saveStrike(c, strikeSchema.parse({ target: 'run', targetId: runId, reason: 'a test' }), 1))
  })
  test('a nozzle that was not fitted then is asked', async () => {
    const p = await refusal(tx(c => saveRun(c, runEntry(shop, { endedAt: ago(35) }), 1)))
    expect(p.questions![0]).toMatchObject({
      code: 'not-fitted:0',
      message: expect.stringContaining('No nozzle was fitted'),
    })
  })
  test('editing a material asks about earlier runs, and leaves them where that is the answer', async () => {
    const before = (await log()).fibreG
    const edit = (confirmed: string[]) => {
      const values = materialEntry('PA6-CF20', { fillerFraction: 0.3 })
      return tx(c => editRecord(c, 'materials', shop.materialId, 1, values, 1, confirmed))
    }
    expect((await refusal(edit([]))).questions).toMatchObject([{ code: 'earlier-runs', field: 'fillerFraction' }])
    await edit([EARLIER_RUNS.keep])
    expect((await log()).fibreG).toBe(before)
    await tx(c => saveRun(c, runEntry(shop, {}, { kind: 'grams', grams: 10 }), 1))
    expect((await log()).fibreG - before).toBeCloseTo(3, 9)
  })
})

describe('gauges and strikes', () => {
  test('wear at a gauge counts runs that ended by then, wherever they were entered', async () => {
    await tx(c => saveGauge(c, gaugeEntry(shop, { goMm: 0.41, noGoMm: 0.42, occurredAt: ago(2) }), 1))
    const at = async () => (await log()).gauges.find(g => g.kind === 'service')!.wearKg
    expect(await at()).toBe(0)
    const late = await tx(c => saveRun(c, runEntry(shop, { endedAt: ago(3) }, { kind: 'grams', grams: 100 }), 1))
    expect(await at()).toBeCloseTo(0.03, 9)
    await tx(c =>
      saveStrike(c, strikeSchema.parse({ target: 'run', targetId: late.runId, reason: 'wrong printer' }), 2),
    )
    expect(await at()).toBe(0)
  })
  test('a bore that shrinks beyond the tolerance is asked, and stored once confirmed', async () => {
    const p = await refusal(tx(c => saveGauge(c, gaugeEntry(shop, { goMm: 0.38, noGoMm: 0.39 }), 1)))
    expect(p.questions![0]).toMatchObject({
      code: 'unexpected-bore',
      field: 'noGoMm',
      message: expect.stringContaining('A bore does not shrink') as string,
    })
    const g = await tx(c =>
      saveGauge(c, gaugeEntry(shop, { goMm: 0.38, noGoMm: 0.39, confirmed: ['unexpected-bore:as-read'] }), 1),
    )
    await tx(c => saveStrike(c, strikeSchema.parse({ target: 'gauge', targetId: g.gaugeId, reason: 'dirty bore' }), 1))
    const page = await nozzlePage(db, 'n-1')
    expect(page.gaugePoints.some(x => x.id === g.gaugeId)).toBe(false)
    expect(page.record.find(r => r.kind === 'gauge' && r.id === g.gaugeId)!.struck).toMatchObject({
      reason: 'dirty bore',
    })
  })
  test('nothing is struck out twice, and what is not there cannot be', async () => {
    expect(
      (
        await refusal(
          tx(c => saveStrike(c, strikeSchema.parse({ target: 'gauge', targetId: 9999, reason: 'nothing' }), 1)),
        )
      ).status,
    ).toBe(404)
    const { runId } = await tx(c => saveRun(c, runEntry(shop, {}, { kind: 'grams', grams: 1 }), 1))
    const strike = strikeSchema.parse({ target: 'run', targetId: runId, reason: 'a test' })
    await tx(c => saveStrike(c, strike, 1))
    expect((await refusal(tx(c => saveStrike(c, strike, 1)))).errors![0]!.message).toMatch(/already/)
  })
  test('striking a fitting that runs rely on lists them and asks', async () => {
    const [fit] = await db.execute<{ id: number }>(
      sql`select id::int from fittings where kind = 'fit' order by id limit 1`,
    )
    const p = await refusal(
      tx(c => saveStrike(c, strikeSchema.parse({ target: 'fitting', targetId: fit!.id, reason: 'wrong head' }), 1)),
    )
    expect(p.questions![0]!.code).toBe('runs-rely')
    expect(p.questions![0]!.items!.length).toBeGreaterThan(3)
  })
})

describe('fitting and retiring', () => {
  test('a nozzle keeps its history across printers, and one that is displaced comes off', async () => {
    const second = await tx(c =>
      addNozzle(c, nozzleSchema.parse({ tag: 'N-2', typeId: shop.typeId, receivedAt: ago(20) }), 1),
    )
    const other = await tx(c => addPrinter(c, printerEntry('Swale', ['hot', 'high flow']), 1))
    const fit = (nozzleId: number, headId: number, days: number) =>
      tx(c => saveFitting(c, fittingSchema.parse({ kind: 'fit', nozzleId, headId, occurredAt: ago(days) }), 1))
    const before = (await log()).wearKg
    expect(await fit(second.id, shop.headId, 0.4)).toMatchObject({ removed: 'N-1' })
    await fit(shop.nozzleId, other.headIds[1]!, 0.3)
    expect((await nozzlePage(db, 'N-1')).place).toMatchObject({ printer: 'Swale', head: 'high flow' })
    expect((await log()).wearKg).toBe(before)
    expect((await refusal(fit(shop.nozzleId, other.headIds[1]!, 0.2))).errors![0]!.message).toMatch(
      /fitted there already/,
    )
    const f = await floor(db)
    expect(f.printers.find(p => p.name === 'Ribble')!.heads[0]!.nozzle!.tag).toBe('N-2')
    expect(f.printers.find(p => p.name === 'Swale')!.heads.map(h => h.nozzle?.tag)).toEqual([undefined, 'N-1'])
  })
  test('retiring takes it off and says why; fitting it again is asked', async () => {
    await tx(c =>
      saveFitting(
        c,
        fittingSchema.parse({
          kind: 'retire',
          nozzleId: shop.nozzleId,
          reason: 'bore past 0.44',
          occurredAt: ago(0.1),
        }),
        1,
      ),
    )
    const page = await nozzlePage(db, 'N-1')
    expect([page.retired, page.place]).toEqual(['bore past 0.44', null])
    expect(
      (
        await refusal(
          tx(c =>
            saveFitting(
              c,
              fittingSchema.parse({ kind: 'fit', nozzleId: shop.nozzleId, headId: shop.headId, occurredAt: ago(0.05) }),
              1,
            ),
          ),
        )
      ).questions![0]!.code,
    ).toBe('retired')
  })
  test('a used nozzle starts from its receipt gauge with no fibre; its limit stays relative to nominal', async () => {
    await tx(c =>
      addNozzle(
        c,
        nozzleSchema.parse({
          tag: 'N-3',
          typeId: shop.typeId,
          wasUsed: true,
          receivedAt: ago(1),
          receipt: { goMm: 0.42, noGoMm: 0.43 },
        }),
        1,
      ),
    )
    const page = await nozzlePage(db, 'N-3')
    expect(page.fibreG).toBe(0)
    expect(page.input.rules.boreLimitMm).toBeCloseTo(0.44, 12)
    expect(page.forecast.bore.median).toBeGreaterThan(0.419)
    expect(page.forecast.bore.median).toBeLessThan(0.431)
  })
})

describe('spools, forecasts and edits', () => {
  test('a weighing sets what is left', async () => {
    await tx(c =>
      saveSpoolEvent(
        c,
        spoolEventSchema.parse({ spoolId: shop.spoolId, kind: 'weighed', grossG: 620, occurredAt: ago(0.01) }),
        1,
      ),
    )
    expect((await listSpools(db)).find(s => s.tag === 'S-1')!.leftG).toBe(420)
    expect(
      (
        await refusal(
          tx(c =>
            saveSpoolEvent(
              c,
              spoolEventSchema.parse({ spoolId: shop.spoolId, kind: 'weighed', grossG: 100, occurredAt: ago(0.01) }),
              1,
            ),
          ),
        )
      ).errors![0]!.field,
    ).toBe('grossG')
  })
  test('a gauge marks the sisters stale, the background works them out, and nothing stays stale', async () => {
    // three sisters tell enough that it is more than the start value
    for (const tag of ['N-S1', 'N-S2', 'N-S3']) {
      const { id: nozzleId } = await tx(c =>
        addNozzle(c, nozzleSchema.parse({ tag, typeId: shop.typeId, receivedAt: ago(1), receipt: null }), 1),
      )
      await tx(c =>
        saveRun(
          c,
          runEntry(
            { ...shop, nozzleId },
            { name: tag, endedAt: ago(0.02), confirmed: ['same-run:0', 'not-fitted:0', `over-spool:${shop.spoolId}`] },
            { kind: 'grams', grams: 400 + Number(tag.slice(-1)) },
          ),
          1,
        ),
      )
      await tx(c =>
        saveGauge(c, gaugeEntry({ ...shop, nozzleId }, { goMm: 0.4, noGoMm: 0.41, occurredAt: ago(0.005) }), 1),
      )
    }
    const [stale] = await db.execute<{ n: number }>(sql`select count(*)::int n from forecasts where stale`)
    expect(stale!.n).toBeGreaterThan(0)
    expect(await refreshStale(db)).toBe(stale!.n)
    expect(await refreshStale(db)).toBe(0)
  })
  test('a stale edit is refused with both versions; the first one stands', async () => {
    const values = { name: 'sensor', place: 'low', limitC: 280, shortC: null, basis: 'practice', note: '', details: {} }
    const [l] = await db.execute<{ id: number }>(sql`select id from parts where role = 'sensor' order by id limit 1`)
    expect(await tx(c => editRecord(c, 'parts', l!.id, 1, values, 2))).toEqual({ version: 2 })
    const [edit] = await listEdits(db, 'parts', l!.id)
    expect(edit).toMatchObject({ version: 2, person: 'Night technician' })
    expect(edit!.before).toMatchObject({ limitC: 300, basis: 'data sheet', place: 'high' })
    expect(edit!.before).not.toHaveProperty('shortC') // what stayed as it was is no edit
    const p = await refusal(tx(c => editRecord(c, 'parts', l!.id, 1, { ...values, limitC: 270 }, 1)))
    expect(p).toMatchObject({
      status: 409,
      type: 'urn:iron-nozzle:stale',
      current: { limitC: 280, version: 2, enteredBy: 2 },
      yours: { limitC: 270 },
    })
  })
  test('a tag that is taken is said at its field', async () => {
    expect(
      (
        await refusal(
          tx(c => addNozzle(c, nozzleSchema.parse({ tag: 'n-2', typeId: shop.typeId, receivedAt: ago(1) }), 1)),
        )
      ).errors,
    ).toEqual([{ field: 'tag', message: 'There is already a nozzle n-2' }])
  })
  test('runs come in pages without gaps or repeats', async () => {
    const seen: number[] = []
    let after: { at: string; id: number } | null = null
    do {
      const page: Awaited<ReturnType<typeof listRuns>> = await listRuns(db, 3, after)
      seen.push(...page.runs.map(r => r.id))
      const [at, id] = page.next?.split('~') ?? []
      after = at && id ? { at, id: Number(id) } : null
    } while (after)
    const [all] = await db.execute<{ n: number }>(sql`select count(*)::int n from runs`)
    expect(new Set(seen).size).toBe(seen.length)
    expect(seen.length).toBe(all!.n)
  })
})
