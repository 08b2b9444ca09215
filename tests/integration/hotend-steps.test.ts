/** A hotend changed step by step: what is refused, what is written, where it is found again, what a stop leaves. */
import { sql } from 'drizzle-orm'
import { expect, test } from 'vitest'
import { connect } from '../../server/db/client'
import { changePage } from '../../server/records/change/board'
import { hotendOffer } from '../../server/records/change/hotend'
import { procedurePage } from '../../server/records/change/procedures'
import { swapOffer } from '../../server/records/change/swap'
import { saveTick } from '../../server/records/change/ticks'
import { headAt } from '../../server/records/printers/fittings'
import { listHotends } from '../../server/records/printers/hotends'
import { listStacks } from '../../server/records/printers/stack-read'
import {
  beginHotend,
  hotend,
  hotendTick,
  message,
  newNozzle,
  provedNow,
  putTogether,
  strike,
  tagOn,
  twoPrinters,
  walkHotend,
} from './hotend-support'
import { end } from './procedure-support'
import { freshDatabase, refusal } from './support'

const { db, url } = await freshDatabase()
const { shop, ribble, nidd } = await twoPrinters(db)
const ready = async (tag: string) =>
  (await putTogether(db, { nozzleId: (await newNozzle(db, shop.typeId, tag)).id })).id
const firmware = async () => (await listStacks(db, [shop.printerId]))[0]!.parts.find(p => p.role === 'firmware') ?? null

test('refused while it is not ready to go, taken, or not known', async () => {
  const empty = await putTogether(db, { add: [] })
  expect(message(await refusal(beginHotend(db, ribble, empty.id)))).toMatch(/its sensor is not described/)
  const noNozzle = await putTogether(db)
  expect(message(await refusal(beginHotend(db, ribble, noNozzle.id)))).toMatch(/no nozzle is in it/)
  expect(message(await refusal(beginHotend(db, ribble, 9999)))).toMatch(/not known/)
  const id = await ready('N-30')
  const first = await beginHotend(db, ribble, id)
  expect(message(await refusal(beginHotend(db, nidd, id)))).toMatch(/is taken: Hotend on Ribble/)
  expect((await hotendOffer(db, nidd)).choices.map(c => c.id)).not.toContain(id)
  await strike(db, 'procedure', first.id)
})

test('killed after every step it resumes; done it writes hotend, nozzle, ceiling, Z and purge', async () => {
  const before = await tagOn(db, ribble)
  const id = await ready('N-31')
  const { tag } = await hotend(db, id)
  const { id: procedureId } = await beginHotend(db, ribble, id)
  const { steps, hotend: facts } = await procedurePage(db, procedureId)
  expect(facts).toMatchObject({ sameSensor: false, firmware: { wasC: null, mostC: 470 } })
  for (const [i, s] of steps.entries()) {
    const device = connect(url, { max: 1 })
    const [backend] = await device.db.execute<{ pid: number }>(sql`select pg_backend_pid() pid`)
    if (s.proof) {
      // proved before it was fitted counts for nothing
      const early = await refusal(device.db.transaction(tx => saveTick(tx, hotendTick(procedureId, s), 1)))
      expect(message(early)).toMatch(/since it was fitted/)
      await provedNow(db, shop.printerId, s.proof.guard!)
    }
    await device.db.transaction(tx => saveTick(tx, hotendTick(procedureId, s), 1))
    if (s.key === 'take')
      for (const g of steps.flatMap(x => x.proof?.guard ?? [])) await provedNow(db, shop.printerId, g)
    await db.execute(sql`select pg_terminate_backend(${backend!.pid})`)
    await device.client.end({ timeout: 1 }).catch(() => {})
    expect(await procedurePage(db, procedureId)).toMatchObject({ done: i + 1, next: steps[i + 1]?.title ?? null })
  }
  // nothing has moved before it is done, nor when its end breaks off at the last thing it writes
  expect(await tagOn(db, ribble)).toBe(before)
  await db.execute(
    sql`create function broken() returns trigger language plpgsql as 'begin raise exception ''away''; end'`,
  )
  await db.execute(sql`create trigger broken before insert on changeovers for each row execute function broken()`)
  await expect(end(db, procedureId)).rejects.toThrow()
  expect([await tagOn(db, ribble), await firmware()]).toEqual([before, null])
  await db.execute(sql`drop trigger broken on changeovers`)
  await end(db, procedureId)
  expect(await tagOn(db, ribble)).toBe(tag)
  expect((await headAt(db, ribble, new Date()))?.tag).toBe('N-31')
  expect(await firmware()).toMatchObject({ limitC: 470, headId: ribble })
  const [z] = await db.execute(sql`select * from z_records order by id desc limit 1`)
  expect(z).toMatchObject({ head_id: ribble, change_mm: null, procedure_id: String(procedureId) })
  const [log] = await db.execute<{ text: string }>(
    sql`select text from stack_changes where kind = 'changed' order by id desc limit 1`,
  )
  expect(log!.text).toBe(
    `${before} off, ${tag} on, step by step; heater B1, red and red and sensor T1, white; ` +
      'sensor type type K, amplifier 1; loop P 21.3, I 1.4, D 78',
  )
  expect((await changePage(db)).printers[0]!.standing.procedures).toEqual([])
})

test('the firmware’s ceiling is at most what it stands; a sensor that shows no room is asked about', async () => {
  const id = (await listHotends(db)).find(h => h.tag === 'H-01')!.id
  const { id: procedureId } = await beginHotend(db, ribble, id)
  const { steps } = await procedurePage(db, procedureId)
  const step = (key: string) => steps.find(s => s.key === key)!
  const tick = (key: string, more: object) =>
    db.transaction(tx => saveTick(tx, hotendTick(procedureId, step(key), more), 1))
  expect(step('firmware').says.join(' ')).toMatch(/Lower the ceiling from 470 °C: H-01 stands 300 °C \(sensor\)/)
  await walkHotend(db, procedureId, 'prop')
  await tick('isolate', {})
  const picture = { values: { 'port heater': 'A', 'port sensor': 'B' }, photos: { photo: 'AAAA' } }
  expect((await refusal(tick('ports', picture))).errors![0]).toMatchObject({ field: 'values.photo' })
  const unasked = { ...picture, photos: { other: 'AAAA' } }
  expect((await refusal(tick('ports', unasked))).errors![0]).toMatchObject({ field: 'photos.other' })
  const png = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='
  await tick('ports', { ...picture, photos: { photo: png } })
  expect((await procedurePage(db, procedureId)).ticks.at(-1)!.values.photo).toMatch(/^[0-9a-f]{64}$/)
  await walkHotend(db, procedureId, 'plug')
  const ceiling = { values: { sensorType: '100k', ceilingC: 470 } }
  expect((await refusal(tick('firmware', ceiling))).errors![0]).toEqual({
    field: 'values.ceilingC',
    message: 'Between 100 and 300 °C',
  })
  await tick('firmware', { values: { sensorType: '100k', ceilingC: 280 } })
  const odd = await refusal(tick('cold', { values: { showsC: -14 } }))
  expect(odd.questions).toMatchObject([{ code: 'far-showsC', field: 'values.showsC' }])
  // stopped now: it sits there, and what was not proved keeps the printer still
  await end(db, procedureId, { outcome: 'stopped early', note: 'shows -14' })
  expect(await tagOn(db, ribble)).toBe('H-01')
  expect(await firmware()).toMatchObject({ limitC: 280 })
  const [tag] = (await changePage(db)).tags
  expect(tag!.must).toEqual(expect.arrayContaining(['Read it cold', 'Prove it: hotend runaway protection']))
})

test('stopped with the old one off: the head has none, and the next one goes on an empty head', async () => {
  const id = await ready('N-33')
  const { id: procedureId } = await beginHotend(db, ribble, id)
  await walkHotend(db, procedureId, 'out')
  await end(db, procedureId, { outcome: 'stopped early', note: 'a plug is burnt' })
  expect(await tagOn(db, ribble)).toBeNull()
  expect(await headAt(db, ribble, new Date())).toBeNull()
  expect((await hotendOffer(db, ribble)).old).toBeNull()
  expect((await changePage(db)).printers[0]!.heads[0]).toMatchObject({ hotend: null, due: 'No hotend is on it.' })
  const { refusal: no, hotend: instead } = await swapOffer(db, ribble)
  expect(no?.says).toBe('No hotend is on it.')
  expect(instead?.tag).toMatch(/^H-/)
  const again = await beginHotend(db, ribble, id)
  expect((await procedurePage(db, again.id)).steps.map(s => s.key)).not.toContain('out')
  await walkHotend(db, again.id)
  await end(db, again.id)
  expect(await tagOn(db, ribble)).toBe((await hotend(db, id)).tag)
})

test('what it rested on and is different now is said', async () => {
  const id = await ready('N-34')
  const { tag } = await hotend(db, id)
  const { id: procedureId } = await beginHotend(db, ribble, id)
  expect((await procedurePage(db, procedureId)).changed).toEqual([])
  await db.execute(sql`update parts set limit_c = 350 where id = ${(await hotend(db, id)).parts[0]!.id}`)
  expect((await procedurePage(db, procedureId)).changed).toEqual([`${tag} stands 350 °C now, not 470 °C.`])
  await strike(db, 'procedure', procedureId)
  // a limit that is none takes its hotend down, and no other
  await db.execute(sql`update parts set limit_c = 40 where id = ${(await hotend(db, id)).parts[0]!.id}`)
  const { choices } = await hotendOffer(db, ribble)
  expect(choices.find(c => c.id === id)!.refusal).toMatch(/stands 40 °C by its .*: no hotend does/)
  expect(choices.filter(c => c.refusal === null).length).toBeGreaterThan(0)
})

test('proposed where the nozzle may not be turned, and where none of the shelf is good', async () => {
  const offer = await swapOffer(db, ribble)
  expect(offer.refusal).toBeNull()
  await db.execute(sql`update material_values set value = 600 where key = 'swapC'`)
  const refused = await swapOffer(db, ribble)
  expect(refused.refusal).toMatchObject({ action: 'Change the whole hotend', where: `/change/hotend?head=${ribble}` })
  const { nozzle, choices } = await hotendOffer(db, ribble)
  expect(nozzle).toBe(refused.refusal!.says)
  expect(choices[0]).toMatchObject({ refusal: null })
  await db.execute(sql`update material_values set value = 245 where key = 'swapC'`)
})
