/** Procedures: steps in their order, each ticked once, left and found again, and what the end writes. */
import { afterAll, beforeAll, expect, test } from 'vitest'
import { spawn } from 'node:child_process'
import { rmSync } from 'node:fs'
import { sql } from 'drizzle-orm'
import { build } from 'vite'
import type { Step } from '#core/procedures'
import { endingSchema } from '#shared/entries/log'
import { nozzleSchema } from '#shared/entries/nozzles'
import { connect } from '../../server/db/client'
import { changePage } from '../../server/records/change/board'
import { procedurePage } from '../../server/records/change/procedures'
import { saveTick } from '../../server/records/change/ticks'
import { swapOffer } from '../../server/records/change/swap'
import { once } from '../../server/records/entry/answers'
import { saveEnding } from '../../server/records/entry/endings'
import { saveStrike } from '../../server/records/entry/strikes'
import { addNozzle } from '../../server/records/nozzles/nozzles'
import { throughFitted } from '../../server/records/prepare/changeovers'
import { headAt } from '../../server/records/printers/fittings'
import { saveRun } from '../../server/records/runs/runs'
import { begin, end, tickOf, walk } from './procedure-support'
import { ago, freshDatabase, refusal, runEntry, smallShop } from './support'

const { db, url } = await freshDatabase()
const shop = await smallShop(db)
const night = { id: 2 }
let tags = 1
/** Another nozzle for the shelf. */
const spare = async () => {
  const entry = { tag: `N-1${tags++}`, typeId: shop.typeId, receivedAt: ago(20) }
  return (await db.transaction(tx => addNozzle(tx, nozzleSchema.parse(entry), 1))).id
}
const swap = async () => (await begin(db, shop.headId, await spare())).id
const tick = (id: number, step: Step, more: object = {}, personId = 1) =>
  db.transaction(tx => saveTick(tx, tickOf(id, step, more), personId))
const strike = (target: 'procedure' | 'procedure tick', targetId: number) =>
  db.transaction(tx => saveStrike(tx, { target, targetId, reason: 'by mistake', confirmed: [] }, 1))
const counts = async () => {
  const [row] = await db.execute<Record<'fittings' | 'z' | 'purges' | 'gauges' | 'tags' | 'ended', number>>(sql`
    select (select count(*)::int from fittings) fittings, (select count(*)::int from z_records) z,
      (select count(*)::int from changeovers) purges, (select count(*)::int from gauges) gauges,
      (select count(*)::int from service_tags) tags, (select count(*)::int from endings) ended`)
  return row!
}

test('what went through decides how hot; done writes fitting, length, Z and what was purged, all at once', async () => {
  await db.transaction(tx => saveRun(tx, runEntry(shop), 1))
  const nozzleId = await spare()
  const { refusal: none, choices, old } = await swapOffer(db, shop.headId)
  expect(none?.says).toMatch(/PA6-CF20 has no swap temperature/)
  await db.execute(sql`insert into material_values (material_id, key, value, basis, entered_by)
    values (${shop.materialId}, 'swapC', 245, 'practice', 1), (${shop.materialId}, 'lowestFlowC', 225, 'practice', 1),
    (${shop.materialId}, 'shortMaxC', 300, 'practice', 1)`)
  expect([choices.map(c => c.nozzle.id), old?.tag]).toEqual([[nozzleId], 'N-1'])
  const { id } = await begin(db, shop.headId, nozzleId)
  const page = await procedurePage(db, id)
  expect(page.swap!.turn).toEqual({ setC: 245, material: 'PA6-CF20' })
  expect(page.title).toMatch(/^Swap on Ribble: N-1 out, N-1\d in$/)
  const before = await counts()
  expect((await refusal(end(db, id))).errors![0]!.message).toMatch(/^Not done yet: Take/)
  const [take] = page.steps
  await tick(id, take!, { values: { lengthMm: 12.62 } })
  await walk(db, id)
  await end(db, id)
  const after = await counts()
  // the old one off, the new one on
  expect(after).toMatchObject({ fittings: before.fittings + 2, z: before.z + 1, purges: before.purges + 1 })
  expect(after.gauges).toBe(before.gauges + 1)
  expect((await headAt(db, shop.headId, new Date()))?.nozzleId).toBe(nozzleId)
  expect((await throughFitted(db))[0]).toMatchObject({ nozzleId, lastId: shop.materialId })
  const [z] = await db.execute(sql`select * from z_records order by id desc limit 1`)
  expect(z).toMatchObject({ way: 'larger is higher', z_mm: -1.21, before_mm: -1.2 })
  expect(z!.change_mm).toBeCloseTo(0.12, 6)
  // the way is known now: it is not asked a second time
  expect((await swapOffer(db, shop.headId)).old!.lengthMm).toBe(12.62)
  const next = await procedurePage(db, await swap())
  expect(next.swap).toMatchObject({ zWay: 'larger is higher', zMm: -1.21 })
  await strike('procedure', next.id)
})

test('killed after every step it is found where it was left, on another device, by the next shift', async () => {
  const id = await swap()
  const { steps } = await procedurePage(db, id)
  for (const [i, s] of steps.entries()) {
    const device = connect(url, { max: 1 })
    const [backend] = await device.db.execute<{ pid: number }>(sql`select pg_backend_pid() pid`)
    await device.db.transaction(tx => saveTick(tx, tickOf(id, s), i % 2 === 0 ? 1 : night.id))
    await db.execute(sql`select pg_terminate_backend(${backend!.pid})`)
    await device.client.end({ timeout: 1 }).catch(() => {})
    const page = await procedurePage(db, id)
    expect(page).toMatchObject({ done: i + 1, of: steps.length, next: steps[i + 1]?.title ?? null, ended: null })
    expect(page.ticks.map(t => t.step)).toEqual(steps.slice(0, i + 1).map(x => x.key))
    expect(page.lastBy).toBe(i % 2 === 0 ? page.by : 'Night technician')
    const board = (await changePage(db)).printers[0]!
    expect(board.standing.procedures).toMatchObject([{ id, done: i + 1, of: steps.length }])
  }
  await end(db, id)
  expect((await changePage(db)).printers[0]!.standing.procedures).toEqual([])
})

test('in their order, once each: whoever comes second is told who was first', async () => {
  const id = await swap()
  const { steps } = await procedurePage(db, id)
  expect((await refusal(tick(id, steps[3]!))).errors![0]).toMatchObject({ field: 'step', message: /^First: Take/ })
  const [a, b] = await Promise.all([tick(id, steps[0]!), tick(id, steps[0]!, {}, night.id)])
  expect([a.already, b.already].filter(x => x === null)).toHaveLength(1)
  expect(a.id).toBe(b.id)
  await expect(
    db.execute(sql`insert into procedure_ticks (procedure_id, step, occurred_at, person_id)
      values (${id}, ${steps[0]!.key}, now(), 1)`),
  ).rejects.toThrow()
  // taken back by a strike, and ticked again; not while another rests on it
  await tick(id, steps[1]!)
  expect((await refusal(strike('procedure tick', a.id))).errors![0]!.message).toMatch(/^Take back first: Raise Z/)
  const second = (await procedurePage(db, id)).ticks.at(-1)!
  await strike('procedure tick', second.id)
  expect((await procedurePage(db, id)).done).toBe(1)
  expect((await tick(id, steps[1]!)).already).toBeNull()
  expect((await refusal(strike('procedure', id))).errors![0]!.message).toMatch(/stop it/)
  await end(db, id, { outcome: 'stopped early', note: 'another job first' })
  expect((await refusal(tick(id, steps[2]!))).errors![0]!.message).toMatch(/has ended: stopped/)
})

test('a wait is over by a reading of the last 10 s, or by what a person reads there', async () => {
  const id = await swap()
  const { steps } = await procedurePage(db, id)
  const heat = steps.findIndex(s => s.key === 'heat')
  for (const s of steps.slice(0, heat)) await tick(id, s)
  const wait = steps[heat]!
  const says = async (reading: object | null) => (await refusal(tick(id, wait, { reading }))).errors![0]!.message
  const { setC } = wait.wait!
  expect(await says(null)).toBe('Say what the printer shows')
  expect(await says({ c: setC, at: new Date(Date.now() - 11_000).toISOString() })).toMatch(/is not read now/)
  expect(await says({ c: 212, at: new Date().toISOString() })).toBe(`wait: 212 of ${setC} °C`)
  expect(await says({ c: 180 })).toMatch(/^wait: 180/)
  await tick(id, wait, { reading: { c: setC - 1, at: new Date().toISOString() } })
  expect((await procedurePage(db, id)).ticks.at(-1)).toMatchObject({ readC: setC - 1, readBy: 'printer' })
  await end(db, id, { outcome: 'stopped early', note: 'trying' })
})

test('numbers that lengths cannot explain are asked about, and kept when they are meant', async () => {
  const id = await swap()
  const { steps } = await procedurePage(db, id)
  const far = await refusal(tick(id, steps[0]!, { values: { lengthMm: 14 } }))
  expect(far.questions).toMatchObject([{ code: 'far-lengthMm', field: 'values.lengthMm' }])
  await tick(id, steps[0]!, { values: { lengthMm: 14 }, confirmed: ['far-lengthMm'] })
  const z = steps.findIndex(s => s.key === 'z')
  for (const s of steps.slice(1, z)) await tick(id, s)
  const values = { zBeforeMm: -1.2, zAfterMm: -2.9 }
  expect((await refusal(tick(id, steps[z]!, { values }))).questions![0]!.message).toMatch(/mm off/)
  await tick(id, steps[z]!, { values, confirmed: ['far-zAfterMm'] })
  expect((await refusal(tick(id, steps[z + 1]!, { values: { nonsense: 1 } }))).errors![0]!.field).toBe(
    'values.nonsense',
  )
  await end(db, id, { outcome: 'stopped early', note: 'trying' })
})

test('stopped with the nozzle out or in: what was moved is logged, and the printer is tagged', async () => {
  const nozzleId = await spare()
  const old = (await headAt(db, shop.headId, new Date()))!
  const { id } = await begin(db, shop.headId, nozzleId)
  const { steps } = await procedurePage(db, id)
  const out = steps.findIndex(s => s.key === 'out')
  for (const s of steps.slice(0, out + 1)) await tick(id, s)
  expect(() =>
    endingSchema.parse({ target: 'procedure', targetId: id, outcome: 'stopped early', occurredAt: ago(0) }),
  ).toThrow()
  const before = await counts()
  await end(db, id, { outcome: 'stopped early', note: 'thread damaged' })
  expect(await headAt(db, shop.headId, new Date())).toBeNull()
  expect((await counts()).tags).toBe(before.tags + 1)
  const [tag] = (await changePage(db)).tags
  expect(tag).toMatchObject({ printer: 'Ribble', procedureId: id, back: null })
  expect(tag!.why).toMatch(/no nozzle in: thread damaged/)
  const back = (proved: object[], note = '') =>
    db.transaction(tx =>
      saveEnding(
        tx,
        endingSchema.parse({ target: 'out of service', targetId: tag!.id, proved, note, occurredAt: ago(0) }),
        1,
      ),
    )
  expect((await refusal(back([]))).errors![0]).toMatchObject({ field: 'proved.0.how' })
  // an empty head: a swap without an old nozzle puts one in
  const again = await begin(db, shop.headId, old.nozzleId)
  expect((await procedurePage(db, again.id))!.swap!.old).toBeNull()
  await walk(db, again.id)
  await end(db, again.id)
  await back([{ what: tag!.must[0]!, how: 'swapped step by step, Z by 0.1 mm feeler' }])
  expect((await changePage(db)).printers[0]!.standing.tags.map(t => t.id)).not.toContain(tag!.id)
})

test('one procedure to a printer; what it rested on and has changed since is said', async () => {
  const id = await swap()
  expect((await refusal(begin(db, shop.headId, await spare()))).errors![0]!.message).toMatch(/is under way there/)
  expect((await procedurePage(db, id)).changed).toEqual([])
  await db.execute(sql`update material_values set value = 260 where key = 'swapC'`)
  expect((await procedurePage(db, id)).changed[0]).toBe('It is turned at 260 °C now, not at 245 °C.')
  await db.execute(sql`update material_values set value = 245 where key = 'swapC'`)
  await end(db, id, { outcome: 'stopped early', note: 'trying' })
})

// The child is bundled once: it is started some twenty times.
const bundle = new URL('../../node_modules/.cache/killed-ending/', import.meta.url).pathname
beforeAll(() =>
  build({
    configFile: false,
    logLevel: 'silent',
    build: {
      ssr: new URL('./killed-save.ts', import.meta.url).pathname,
      outDir: bundle,
      emptyOutDir: true,
      rollupOptions: { output: { entryFileNames: 'killed-save.mjs' } },
    },
  }),
)
afterAll(() => rmSync(bundle, { recursive: true, force: true }))

test('killed in the middle of its end, at every fifth statement: nothing is written, or all of it', async () => {
  const id = await swap()
  await walk(db, id)
  const body = endingSchema.parse({ target: 'procedure', targetId: id, occurredAt: new Date().toISOString() })
  const kill = (at: number) =>
    new Promise<string>(done => {
      const p = spawn(process.execPath, [`${bundle}killed-save.mjs`], {
        env: {
          ...process.env,
          DATABASE_URL: url,
          KILL_AT: String(at),
          KEY: 'killed-swap',
          ROUTE: '/api/endings',
          BODY: JSON.stringify(body),
        },
        stdio: ['ignore', 'ignore', 'inherit'],
      })
      p.once('exit', (code, signal) => done(signal ?? String(code)))
    })
  const before = await counts()
  let at = 5
  while ((await kill(at)) === 'SIGKILL') {
    expect(await counts(), `statement ${at}`).toEqual(before)
    at += 5
  }
  expect(at).toBeGreaterThan(20)
  const all = {
    ...before,
    fittings: before.fittings + 2,
    z: before.z + 1,
    purges: before.purges + 1,
    ended: before.ended + 1,
  }
  expect(await counts()).toEqual(all)
  await once(db, { key: 'killed-swap', route: '/api/endings', body, personId: 1 }, tx => saveEnding(tx, body, 1))
  expect(await counts()).toEqual(all)
}, 120_000)
