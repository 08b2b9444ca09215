/** One entry in every log, saved as a person would. */
import { Scan } from '#core/gcode'
import { startWindow } from '#core/limits'
import type { Connection, Database } from '../../server/db/client'
import { saveCoolDown } from '../../server/records/change/cool-downs'
import { addBed } from '../../server/records/level/beds'
import { saveLevel } from '../../server/records/level/levels'
import { saveZRecord } from '../../server/records/level/z-records'
import { addPin, saveCertificate } from '../../server/records/pins/pins'
import { addStockItem, saveStockMove } from '../../server/records/stock/items'
import { addUpkeepTask } from '../../server/records/upkeep/tasks'
import { saveUpkeep } from '../../server/records/upkeep/upkeep'
import { dueItems } from '../../server/records/due/due'
import { saveSnooze } from '../../server/records/due/snoozes'
import { saveServiceTag, saveShiftNote } from '../../server/records/change/service'
import { addCase, saveClosing, saveFinding } from '../../server/records/diagnosis/save'
import { saveChangeover } from '../../server/records/prepare/changeovers'
import { addDryer } from '../../server/records/prepare/dryers'
import { saveAnneal } from '../../server/records/prepare/anneals'
import { saveDrying } from '../../server/records/prepare/dryings'
import { editRecord } from '../../server/records/entry/edits'
import { saveEnding } from '../../server/records/entry/endings'
import { saveSoak } from '../../server/records/prepare/soaks'
import { addBench } from '../../server/records/flow/benches'
import { saveBlob, saveFilamentMeasure } from '../../server/records/flow/weigh'
import { saveGauge } from '../../server/records/nozzles/gauges'
import { addNozzle } from '../../server/records/nozzles/nozzles'
import { addStudy, saveStudyReading } from '../../server/records/studies/studies'
import { takeIn } from '../../server/records/intake/intake'
import { addMaterial } from '../../server/records/materials/materials'
import { savePrecheck } from '../../server/records/prepare/prechecks'
import { addSetup, saveScale } from '../../server/records/pictures/setups'
import { saveSensorCheck } from '../../server/records/sensors/checks'
import { addReference } from '../../server/records/sensors/references'
import { saveCutOutTest, savePlan } from '../../server/records/chambers/plans'
import { saveSurvey } from '../../server/records/chambers/surveys'
import { saveRun } from '../../server/records/runs/runs'
import { saveWarmUp, saveWarmUpPlace } from '../../server/records/prepare/warm-ups'
import { saveSpoolEvent, addSpool } from '../../server/records/spools/spools'
import { saveChange } from '../../server/records/printers/stack-change'
import { saveStrike } from '../../server/records/entry/strikes'
import {
  annealSchema,
  changeoverSchema,
  dryerSchema,
  dryingSchema,
  precheckSchema,
  soakSchema,
  warmUpPlaceSchema,
  warmUpSchema,
} from '#shared/entries/prepare'
import { caseSchema, closingSchema, findingSchema } from '#shared/entries/diagnosis'
import { coolDownSchema, serviceTagSchema, shiftNoteSchema } from '#shared/entries/change'
import { bedSchema, levelSchema, zRecordSchema } from '#shared/entries/level'
import { pinCertificateSchema, pinFields } from '#shared/entries/pins'
import { stockItemFields, stockMoveSchema } from '#shared/entries/stock'
import { upkeepSchema, upkeepTaskFields } from '#shared/entries/upkeep'
import { snoozeSchema } from '#shared/entries/due'
import { cutOutTestSchema } from '#shared/entries/plans'
import { changeSchema } from '#shared/entries/printers'
import { endingSchema } from '#shared/entries/log'
import { scaleSchema, setupFields } from '#shared/entries/pictures'
import { benchSchema, blobSchema, filamentMeasureSchema } from '#shared/entries/flow'
import { intakeSchema } from '#shared/entries/intake'
import { nozzleSchema } from '#shared/entries/nozzles'
import { referenceFields, sensorCheckSchema } from '#shared/entries/sensors'
import { studyReadingSchema, studySchema } from '#shared/entries/studies'
import { jobSchema } from '#shared/entries/runs'
import { spoolEventSchema, spoolSchema } from '#shared/entries/spools'
import { pictured } from './picture-support'
import { begin, end, walk } from './procedure-support'
import { ago, gaugeEntry, materialEntry, planEntry, runEntry, surveyEntry, type SmallShop } from './support'

export async function oneOfEach(db: Database, shop: SmallShop): Promise<void> {
  const save = <T>(work: (tx: Connection) => Promise<T>) => db.transaction(work)
  const { printerId, headId, nozzleId } = shop
  const window = startWindow('PA6', 'carbon fibre')!
  const nylon = { facts: window.facts, sets: window.sets }
  const material = await save(tx => addMaterial(tx, materialEntry('PA6-CF20 with its window', nylon), 1))
  const spoolEntry = { tag: 'S-5', materialId: material.id, diameterMm: 1.75, netG: 1000, hub: 'metal' }
  const spool = await save(tx => addSpool(tx, spoolSchema.parse(spoolEntry), 1))
  const ovenEntry = { name: 'Oven', kind: 'oven', ceilingC: 200, timeOutH: 24, basis: 'nameplate' }
  const oven = await save(tx => addDryer(tx, dryerSchema.parse(ovenEntry), 1))

  const scan = scanned()
  const job = jobSchema.parse({ name: 'guide.gcode', contentSha256: 'b'.repeat(64), sizeBytes: 500, scan })
  const run = await save(tx => saveRun(tx, runEntry(shop, { job }, { kind: 'job' }), 1))
  await save(tx => saveGauge(tx, gaugeEntry(shop, { goMm: 0.41, noGoMm: 0.42 }), 1))
  const setup = await save(tx => addSetup(tx, setupFields.parse({ name: 'Microscope' }), 1))
  const second = nozzleSchema.parse({ tag: 'N-77', typeId: shop.typeId, receivedAt: ago(1) })
  const other = await save(tx => addNozzle(tx, second, 1))
  const scale = { setupId: setup.id, how: 'pin', knownMm: 0.5, umPerPx: 2, uUmPerPx: 0.01, occurredAt: ago(0.5) }
  await save(tx => saveScale(tx, scaleSchema.parse(scale), 1))
  await save(tx => saveGauge(tx, gaugeEntry(shop, pictured(setup.id, 0.412)), 1))
  const list = { personIds: [1], nozzleIds: [nozzleId, other.id], repeats: 2, occurredAt: ago(0.3) }
  const study = await save(tx => addStudy(tx, studySchema.parse({ name: 'Pins', method: 'pins', ...list }), 1))
  const read = { studyId: study.id, line: 0, goMm: 0.41, noGoMm: 0.42, occurredAt: ago(0.2) }
  await save(tx => saveStudyReading(tx, studyReadingSchema.parse(read), 1))
  const probe = { name: 'Probe', is: { kind: 'probe', readsIn: '°C', certificateUC: 0.3, meter: 0.1 } }
  const reference = await save(tx => addReference(tx, referenceFields.parse(probe), 1))
  const held = { referenceId: reference.id, placement: 'in the block', points: [{ shownC: 240, reading: 241 }] }
  const sensor = { printerId, zone: 'hotend', headId, allowed: { by: 'data sheet', plusMinusC: 5 }, ...held }
  await save(tx => saveSurvey(tx, surveyEntry(printerId, [60, 55]), 1))
  await save(tx => savePlan(tx, planEntry(printerId, 'Lined'), 1))
  const cutOut = { printerId, guard: 'bed thermal cut-out', tripped: true, atC: 130, occurredAt: ago(0.2) }
  await save(tx => saveCutOutTest(tx, cutOutTestSchema.parse(cutOut), 1))
  await save(tx => saveSensorCheck(tx, sensorCheckSchema.parse({ ...sensor, occurredAt: ago(0.2) }), 1))
  const opened = { spoolId: spool.id, kind: 'opened', occurredAt: ago(2) }
  await save(tx => saveSpoolEvent(tx, spoolEventSchema.parse(opened), 1))
  const dryingEntry = { spoolId: spool.id, dryerId: oven.id, setC: 80, plannedH: 8, occurredAt: ago(1) }
  const drying = await save(tx => saveDrying(tx, dryingSchema.parse(dryingEntry), 1))
  const ending = { target: 'drying', targetId: drying.id, occurredAt: ago(0.5) }
  await save(tx => saveEnding(tx, endingSchema.parse(ending), 1))
  const change = { printerId, text: 'a fan added', occurredAt: ago(0.4), add: [{ kind: 'fans' }] }
  await save(tx => saveChange(tx, changeSchema.parse(change), 1))
  const soak = {
    printerId,
    targetC: 50,
    bedC: 100,
    part: 'small',
    minutes: 30,
    basis: 'practice',
    occurredAt: ago(0.2),
  }
  await save(tx => saveSoak(tx, soakSchema.parse(soak), 1))
  const rising = Array.from({ length: 60 }, (_, i) => ({ s: i * 30, c: 23 + 40 * (1 - Math.exp(-i / 20)) }))
  const warmUp = { printerId, place: 'high', bedC: 100, roomC: 23, readings: rising, occurredAt: ago(0.2) }
  const recorded = await save(tx => saveWarmUp(tx, warmUpSchema.parse(warmUp), 1))
  const told = { warmUpId: recorded.id, place: 'low', occurredAt: ago(0.1) }
  await save(tx => saveWarmUpPlace(tx, warmUpPlaceSchema.parse(told), 1))
  const between = { fromMaterialId: shop.materialId, toMaterialId: material.id }
  const purge = { headId, nozzleId, ...between, atC: 260, volumeMm3: 900, clean: true, occurredAt: ago(0.2) }
  await save(tx => saveChangeover(tx, changeoverSchema.parse(purge), 1))
  const heated = { atC: 80, holdH: 6, rampCPerH: 40, thicknessMm: 8, occurredAt: ago(0.1) }
  const anneal = { name: 'guides', materialId: material.id, dryerId: oven.id, ...heated }
  await save(tx => saveAnneal(tx, annealSchema.parse(anneal), 1))
  const asked = { printerId, headId, spoolId: spool.id, materialId: material.id, printsFrom: 'dry box', hours: 1 }
  const precheck = { ...asked, name: 'guide.gcode', scan, occurredAt: ago(0) }
  await save(tx => savePrecheck(tx, precheckSchema.parse(precheck), 1))
  const set = { temperaturesC: [265], flowsMm3S: [8, 10, 12], repeats: 1, stand: { xMm: 20, yMm: 20, zMm: 60 } }
  const benchEntry = { headId, spoolId: spool.id, ...set, balanceStepG: 0.01, occurredAt: ago(0.05) }
  const bench = await save(tx => addBench(tx, benchSchema.parse(benchEntry), 1))
  const blob = { benchId: bench.id, line: 0, grossG: 2.95, occurredAt: ago(0.04) }
  await save(tx => saveBlob(tx, blobSchema.parse(blob), 1))
  const callipers = { benchId: bench.id, callipersMm: [1.74, 1.75, 1.75], occurredAt: ago(0.03) }
  await save(tx => saveFilamentMeasure(tx, filamentMeasureSchema.parse(callipers), 1))
  const early = { target: 'flow bench', targetId: bench.id, outcome: 'stopped early', occurredAt: ago(0.02) }
  await save(tx => saveEnding(tx, endingSchema.parse(early), 1))
  const seen = { headId, runId: run.runId, seen: ['popping'], not: ['ooze'], occurredAt: ago(0.02) }
  const line = { nozzle: 'N-1', gauged: '2025-01-01', go: 0.4 }
  const sheet = intakeSchema.parse({ table: 'gauges', lines: [{ line: 1, values: line }] })
  await save(tx => takeIn(tx, sheet, 1, db))
  const wrong = await save(tx => addCase(tx, caseSchema.parse(seen), 1))
  const lens = { caseId: wrong.id, kind: 'test', key: 'lens', state: 'bubbles in the strand', occurredAt: ago(0.01) }
  await save(tx => saveFinding(tx, findingSchema.parse(lens), 1))
  const was = { caseId: wrong.id, cause: 'moisture', known: 'by a test', how: 'bubbles', occurredAt: ago(0.01) }
  await save(tx => saveClosing(tx, closingSchema.parse(was), 1))
  const swap = await begin(db, headId, other.id)
  await walk(db, swap.id)
  await end(db, swap.id)
  const cools = { printerId, materialId: material.id, name: 'guide', thicknessMm: 12, bedC: 100, occurredAt: ago(0) }
  await save(tx => saveCoolDown(tx, coolDownSchema.parse(cools), 1))
  const tag = { printerId, why: 'a wire is frayed', must: ['wiring mended'], occurredAt: ago(0) }
  await save(tx => saveServiceTag(tx, serviceTagSchema.parse(tag), 1))
  const bed = {
    printerId,
    widthMm: 300,
    depthMm: 300,
    screws: [],
    pitchMm: 0.7,
    clockwise: 'lowers',
    basis: 'practice',
  }
  await save(tx => addBed(tx, bedSchema.parse(bed), 1))
  const points = [20, 280].flatMap(xMm => [20, 280].map(yMm => ({ xMm, yMm, gapMm: 0.1 })))
  const even = { printerId, bedC: 60, occurredAt: ago(0), measured: { how: 'feeler', wantedMm: 0.1, rounds: [points] } }
  await save(tx => saveLevel(tx, levelSchema.parse(even), 1))
  const z = { headId, why: 'power-off', zMm: 0, way: 'larger is higher', occurredAt: ago(0) }
  await save(tx => saveZRecord(tx, zRecordSchema.parse(z), 1))
  const belts = { printerId, kind: 'belts', name: 'Belts', everyHours: 500, basis: 'practice' }
  const { id: taskId } = await save(tx => addUpkeepTask(tx, upkeepTaskFields.parse(belts), 1))
  const found = { taskId, found: 'put right', occurredAt: ago(0) }
  await save(tx => saveUpkeep(tx, upkeepSchema.parse(found), 1))
  const [item] = (await dueItems(db)).filter(i => i.mark !== 'stop')
  const later = { key: item!.key, until: ago(-1), reason: 'a part is on its way', occurredAt: ago(0) }
  await save(tx => saveSnooze(tx, snoozeSchema.parse(later), 1))
  const { id: pinId } = await save(tx => addPin(tx, pinFields.parse({ mark: 'P-1', nominalMm: 0.42 }), 1))
  const small = { pinId, sizeMm: 0.416, expandedUm: 1, occurredAt: ago(0) }
  await save(tx => saveCertificate(tx, pinCertificateSchema.parse(small), 1))
  const belt = stockItemFields.parse({ kind: 'belt', name: 'Belt' })
  const { id: itemId } = await save(tx => addStockItem(tx, belt, 1))
  const three = { itemId, kind: 'counted', quantity: 3, occurredAt: ago(0) }
  await save(tx => saveStockMove(tx, stockMoveSchema.parse(three), 1))
  const left = { printerId, says: 'the belt was tightened', occurredAt: ago(0) }
  await save(tx => saveShiftNote(tx, shiftNoteSchema.parse(left), 1))
  await save(tx => saveStrike(tx, { target: 'run', targetId: run.runId, reason: 'for the test', confirmed: [] }, 1))
  await save(tx => editRecord(tx, 'printers', printerId, 1, { name: 'Ribble', kind: 'enclosed', note: 'moved' }, 1))
}

/** A small job file, read. */
function scanned() {
  const file = ['M83', 'M104 S280', 'M140 S100', 'G1 Z0.3 F900', 'G1 X50 E40', 'G1 X0 E40', '']
  const bytes = new TextEncoder().encode(file.join('\n'))
  const s = new Scan({ totalBytes: bytes.length })
  s.push(bytes)
  return s.finish()
}
