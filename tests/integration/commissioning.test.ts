/** New printers are commissioned by records and not by ticks; notes are signed by the next shift; parts cool. */
import { expect, test } from 'vitest'
import type { Step } from '#core/procedures'
import { coolDownSchema, procedureSchema, shiftNoteSchema } from '#shared/entries/change'
import { endingSchema } from '#shared/entries/log'
import { bedSchema, levelSchema } from '#shared/entries/level'
import { nozzleSchema } from '#shared/entries/nozzles'
import { cutOutTestSchema } from '#shared/entries/plans'
import { precheckSchema } from '#shared/entries/prepare'
import { fittingSchema } from '#shared/entries/printers'
import { referenceFields, sensorCheckSchema } from '#shared/entries/sensors'
import { saveCutOutTest } from '../../server/records/chambers/plans'
import { saveSurvey } from '../../server/records/chambers/surveys'
import { beginProcedure } from '../../server/records/change/begin'
import { changePage } from '../../server/records/change/board'
import { listCoolDowns, saveCoolDown } from '../../server/records/change/cool-downs'
import { procedurePage } from '../../server/records/change/procedures'
import { saveShiftNote } from '../../server/records/change/service'
import { swapOffer } from '../../server/records/change/swap'
import { saveTick } from '../../server/records/change/ticks'
import { saveEnding } from '../../server/records/entry/endings'
import { addNozzle } from '../../server/records/nozzles/nozzles'
import { addBed } from '../../server/records/level/beds'
import { saveLevel } from '../../server/records/level/levels'
import { makePrecheck } from '../../server/records/prepare/prechecks'
import { saveFitting } from '../../server/records/printers/fittings'
import { addPrinter } from '../../server/records/printers/stack-change'
import { saveSensorCheck } from '../../server/records/sensors/checks'
import { addReference } from '../../server/records/sensors/references'
import { end, tickOf } from './procedure-support'
import { ago, freshDatabase, printerEntry, refusal, smallShop, surveyEntry } from './support'

const { db } = await freshDatabase()
const shop = await smallShop(db)
const night = { id: 2 }
const screws = [
  { name: 'front left', xMm: 30, yMm: 30 },
  { name: 'front right', xMm: 170, yMm: 30 },
  { name: 'back', xMm: 100, yMm: 170 },
]
const tick = (id: number, step: Step, more: object = {}) =>
  db.transaction(tx => saveTick(tx, tickOf(id, step, more), 1))

test('a new printer is commissioned: proofs are records, and only then it may run', async () => {
  const entry = { ...printerEntry('Lune'), toCommission: true }
  const { id: printerId, headIds } = await db.transaction(tx => addPrinter(tx, entry, 1))
  const standing = async () => (await changePage(db)).printers.find(p => p.id === printerId)!.standing
  expect(await standing()).toMatchObject({ toCommission: true, procedures: [] })
  const asked = procedureSchema.parse({ kind: 'commission', printerId, occurredAt: ago(0.01) })
  const { id } = await db.transaction(tx => beginProcedure(tx, asked, 1))
  const { steps } = await procedurePage(db, id)
  const wired = { values: { wiredBy: 'a licensed electrician' } }
  const bed = { printerId, widthMm: 200, depthMm: 200, screws, pitchMm: 0.7, clockwise: 'lowers', basis: 'practice' }
  await db.transaction(tx => addBed(tx, bedSchema.parse(bed), 1))
  // a bed measured before it was heated proves nothing of the hot one
  await prove({ of: 'level', guard: null, headId: null }, printerId, headIds[0]!)
  for (const s of steps) {
    if (s.proof === null) {
      await tick(id, s, s.key === 'wiring' ? wired : {})
      continue
    }
    expect((await refusal(tick(id, s))).errors![0]!.message, s.key).toMatch(/a tick alone is no proof$/)
    await prove(s.proof, printerId, headIds[0]!)
    expect((await procedurePage(db, id)).proofs[s.key]).toMatch(/Day technician$/)
    await tick(id, s)
  }
  await end(db, id)
  expect(await standing()).toEqual({ procedures: [], tags: [], notes: [], toCommission: false })
})

/** Makes the record that a step asks for. A cut-out that did not trip proves nothing. */
async function prove(proof: NonNullable<Step['proof']>, printerId: number, headId: number): Promise<void> {
  const { guard } = proof
  const test = (tripped: boolean) =>
    db.transaction(tx =>
      saveCutOutTest(tx, cutOutTestSchema.parse({ printerId, guard, tripped, occurredAt: ago(0) }), 1),
    )
  if (proof.of === 'nozzle') {
    const nozzle = nozzleSchema.parse({ tag: 'N-2', typeId: shop.typeId, receivedAt: ago(40) })
    const { id: nozzleId } = await db.transaction(tx => addNozzle(tx, nozzle, 1))
    const fit = { kind: 'fit', nozzleId, headId, occurredAt: ago(0) }
    await db.transaction(tx => saveFitting(tx, fittingSchema.parse(fit), 1))
  } else if (proof.of === 'level') {
    const measured = {
      how: 'feeler',
      wantedMm: 0.1,
      rounds: [screws.map(({ xMm, yMm }) => ({ xMm, yMm, gapMm: 0.1 }))],
    }
    const level = levelSchema.parse({ printerId, measured, bedC: 60, occurredAt: ago(0) })
    await db.transaction(tx => saveLevel(tx, level, 1))
  } else if (proof.of === 'cut-out test') {
    await test(false)
    await test(true)
  } else if (proof.of === 'chamber')
    await db.transaction(tx => saveSurvey(tx, surveyEntry(printerId, [60, 55], { occurredAt: ago(0) }), 1))
  else {
    const probe = { name: 'Probe', is: { kind: 'probe', readsIn: '°C', certificateUC: 0.3, meter: 0.1 } }
    const { id: referenceId } = await db.transaction(tx => addReference(tx, referenceFields.parse(probe), 1))
    const held = { referenceId, placement: 'in the block', points: [{ shownC: 200, reading: 201 }] }
    const check = { printerId, zone: 'hotend', headId, allowed: { by: 'data sheet', plusMinusC: 5 }, ...held }
    await db.transaction(tx => saveSensorCheck(tx, sensorCheckSchema.parse({ ...check, occurredAt: ago(0) }), 1))
  }
}

test('a note is signed by the next shift, not by who wrote it', async () => {
  const note = { printerId: shop.printerId, says: 'the belt was tightened', occurredAt: ago(0) }
  const { id } = await db.transaction(tx => saveShiftNote(tx, shiftNoteSchema.parse(note), 1))
  const sign = (personId: number) =>
    db.transaction(tx =>
      saveEnding(tx, endingSchema.parse({ target: 'shift note', targetId: id, occurredAt: ago(0) }), personId),
    )
  expect((await refusal(sign(1))).errors![0]!.message).toMatch(/^You wrote it/)
  const check = { printerId: shop.printerId, headId: shop.headId, materialId: shop.materialId, printsFrom: 'room' }
  const lines = async () =>
    (await makePrecheck(db, precheckSchema.parse({ ...check, name: 'x', hours: 1, occurredAt: ago(0) }))).lines.filter(
      l => l.key === 'ready',
    )
  expect((await lines()).find(l => l.says.includes('belt'))).toMatchObject({ status: 'stop', waivable: false })
  await sign(night.id)
  expect((await lines()).some(l => l.says.includes('belt'))).toBe(false)
})

test('a part cools by the plan of its material, one to a printer, until it is off', async () => {
  const asked = { printerId: shop.printerId, materialId: shop.materialId, name: 'guide', thicknessMm: 20, bedC: 100 }
  const start = () => db.transaction(tx => saveCoolDown(tx, coolDownSchema.parse({ ...asked, occurredAt: ago(0) }), 1))
  const { id, until } = await start()
  const [line] = await listCoolDowns(db)
  expect(line).toMatchObject({ id, printer: 'Ribble', takeOff: 'cold', takeOffC: 35, to: null })
  expect(Date.parse(until) - Date.parse(line!.from)).toBeCloseTo(line!.minutes * 60_000, -2)
  expect((await refusal(start())).errors![0]!.message).toMatch(/^guide cools on Ribble/)
  await db.transaction(tx =>
    saveEnding(tx, endingSchema.parse({ target: 'cool-down', targetId: id, occurredAt: ago(0) }), 1),
  )
  expect((await listCoolDowns(db))[0]).toMatchObject({ outcome: 'done' })
})

test('in a shop without a filament a swap says what comes first', async () => {
  const { db: empty } = await freshDatabase()
  const { headIds } = await empty.transaction(tx => addPrinter(tx, printerEntry('Lune'), 1))
  const offer = await swapOffer(empty, headIds[0]!)
  expect(offer).toMatchObject({ choices: [], old: null, refusal: { where: '/equip/materials?add=1' } })
})
