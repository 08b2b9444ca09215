/**
 * The demo's gauge study, and the brass nozzle that was worn out on purpose. Readings are drawn by a generator of their
 * own from bores that only the demo knows; what they tell comes out of the core.
 */
import { mulberry32, normalDraw } from '#core/numeric'
import { boreAfter } from '#core/wear'
import { gaugeSchema } from '#shared/entries/nozzles'
import { runSchema } from '#shared/entries/runs'
import { studyReadingSchema, studySchema } from '#shared/entries/studies'
import type { Connection } from '../server/db/client'
import { saveFitting } from '../server/records/printers/fittings'
import { saveGauge } from '../server/records/nozzles/gauges'
import { storeRun } from '../server/records/runs/runs'
import { addStudy, listStudies, saveStudyReading } from '../server/records/studies/studies'

const SEED = 41

/** How pins are read: the second person pushes harder, and everybody's hand differs a little each time. mm. */
const HARDER_MM = 0.0015
const HAND_MM = 0.0012

/** Two people, the same pins, three rounds over nozzles from the drawer; read in one afternoon. */
export async function addPinStudy(
  tx: Connection,
  o: { people: [number, number]; bores: Map<number, number>; at: (minutes: number) => string; lead: number },
): Promise<void> {
  const entry = {
    name: 'Pins, two of us',
    method: 'pins',
    personIds: o.people,
    nozzleIds: [...o.bores.keys()],
    repeats: 3,
    note: 'the 0.01 mm pin set, cold nozzles, brushed',
    occurredAt: o.at(0),
  }
  const { id } = await addStudy(tx, studySchema.parse(entry), o.lead)
  const { lines } = (await listStudies(tx)).find(s => s.id === id)!
  for (const [line, l] of lines.entries()) {
    // by the line and not by its place: the list is drawn anew with every demo, what is found is not
    const random = mulberry32(SEED + 1000 * o.people.indexOf(l.personId) + 100 * l.round + l.nozzleId)
    const seen = o.bores.get(l.nozzleId)! + HARDER_MM * o.people.indexOf(l.personId) + HAND_MM * normalDraw(random)
    const goMm = Math.floor(seen * 100) / 100
    const reading = {
      studyId: id,
      line,
      goMm,
      noGoMm: Number((goMm + 0.01).toFixed(2)),
      occurredAt: o.at(2 + 2 * line),
    }
    await saveStudyReading(tx, studyReadingSchema.parse(reading), l.personId)
  }
}

const JOB_G = 150
const MOST_JOBS = 4
const WORN_MM = 0.445

/** A spare brass nozzle, worn out with fibre in two days between other jobs, and the one before it put back. */
export async function addWornOut(
  tx: Connection,
  o: {
    nozzle: { id: number; kappa: number; d0: number }
    before: number
    printerId: number
    headId: number
    materialId: number
    fraction: number
    at: (hours: number) => string
    person: number
  },
): Promise<void> {
  const fitting = (kind: 'fit' | 'retire', nozzleId: number, hours: number, reason = '') =>
    saveFitting(
      tx,
      {
        kind,
        nozzleId,
        headId: kind === 'fit' ? o.headId : null,
        reason,
        occurredAt: o.at(hours),
        confirmed: [],
      },
      o.person,
    )
  await fitting('fit', o.nozzle.id, 0)
  let wearKg = 0
  let boreMm = 0.4
  let hours = 0
  for (let i = 0; i < MOST_JOBS && boreMm < WORN_MM; i++) {
    const tool = {
      tool: 0,
      headId: o.headId,
      nozzleId: o.nozzle.id,
      spoolId: null,
      materialId: o.materialId,
      setC: 220,
    }
    const run = {
      printerId: o.printerId,
      name: 'how long does brass last',
      endedAt: o.at(7 + 8 * i),
      hours: 6.5,
      outcome: 'finished',
      bedSetC: 60,
      tools: [{ ...tool, amount: { kind: 'grams', grams: JOB_G } }],
      note: 'worn out on purpose, to learn from it',
    }
    await storeRun(tx, runSchema.parse(run), o.person)
    wearKg += (JOB_G / 1000) * o.fraction
    boreMm = boreAfter('sliding', o.nozzle.d0, o.nozzle.kappa, wearKg, 0.4)
    hours = 7.4 + 8 * i
    const goMm = Math.floor(boreMm * 100) / 100
    const found = { goMm, noGoMm: Number((goMm + 0.01).toFixed(2)), confirmed: ['unexpected-bore:as-read'] }
    const gauge = gaugeSchema.parse({ nozzleId: o.nozzle.id, occurredAt: o.at(hours), ...found })
    await saveGauge(tx, gauge, o.person)
  }
  await fitting('retire', o.nozzle.id, hours + 0.4, 'bore past 0.44 mm')
  await fitting('fit', o.before, hours + 0.6)
}
