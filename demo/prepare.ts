/**
 * What Hollin Mill did to prepare its runs: dryers, dryings that were weighed, spools in and out, warm-ups, purges, an
 * anneal, a check. The true wound-spool factor is known only here.
 */
import { dryerRh, filamentOf, meanWater, newSpool, START_WOUND, stayed } from '#core/drying'
import {
  annealSchema,
  changeoverSchema,
  checkLineSchema,
  dryerSchema,
  dryingSchema,
  soakSchema,
  warmUpSchema,
} from '#shared/entries/prepare'
import { spoolFill, spoolMass } from '#core/materials'
import { endingSchema } from '#shared/entries/log'
import { spoolEventSchema } from '#shared/entries/spools'
import type { Connection } from '../server/db/client'
import { saveChangeover } from '../server/records/prepare/changeovers'
import { addCheckLine } from '../server/records/prepare/check-lines'
import { addDryer } from '../server/records/prepare/dryers'
import { saveAnneal } from '../server/records/prepare/anneals'
import { saveDrying } from '../server/records/prepare/dryings'
import { saveEnding } from '../server/records/entry/endings'
import { saveSoak } from '../server/records/prepare/soaks'
import { saveWarmUp } from '../server/records/prepare/warm-ups'
import { massOfSpool } from '../server/records/spools/mass'
import { saveSpoolEvent } from '../server/records/spools/spools'
import { machine, pass, type Build } from '../sim/thermal'

const TRUE_FACTOR = 1.7
const HOUR = 3_600_000

export interface ShopIds {
  printers: Map<string, number>
  heads: Map<string, number>
  materials: Map<string, number>
  nozzles: Map<string, number>
  spools: {
    id: number
    material: string
    netG: number
    tareG: number
    polymer: string
    fraction: number
    from: string
  }[]
  at: (day: number, hour?: number) => string
  lastDay: number
  day: number
  night: number
  lead: number
  random: () => number
}

export const DRYERS = [
  { name: 'Small dryer', kind: 'vented', ceilingC: 55, timeOutH: 24, note: 'two spools' },
  { name: 'Bench dryer', kind: 'vented', ceilingC: 70, timeOutH: 48, note: '' },
  { name: 'Cabinet', kind: 'desiccant', ceilingC: 90, timeOutH: null, note: 'desiccant changed monthly' },
  { name: 'Oven', kind: 'oven', ceilingC: 200, timeOutH: 24, note: 'never for food again' },
  {
    name: "Ribble's bed",
    kind: 'bed under a cover',
    ceilingC: 105,
    timeOutH: 12,
    note: 'on the spacer, under the steel cover, attended',
    printer: 'Ribble',
  },
] as const

export async function fillPrepare(tx: Connection, s: ShopIds): Promise<void> {
  const dryers: Record<string, { id: number; kind: 'vented' | 'desiccant' | 'bed under a cover' | 'oven' }> = {}
  for (const d of DRYERS) {
    const { id } = await addDryer(
      tx,
      dryerSchema.parse({
        name: d.name,
        kind: d.kind,
        ceilingC: d.ceilingC,
        timeOutH: d.timeOutH,
        basis: 'nameplate',
        note: d.note,
        printerId: 'printer' in d ? s.printers.get(d.printer) : null,
      }),
      s.lead,
    )
    dryers[d.name] = { id, kind: d.kind }
  }
  const event = (spool: number, kind: 'opened' | 'loaded' | 'out' | 'in', occurredAt: string, more: object = {}) =>
    saveSpoolEvent(tx, spoolEventSchema.parse({ spoolId: s.spools[spool]!.id, kind, occurredAt, ...more }), s.day)

  /** A drying right after opening, weighed before and after when `weighed`; afterwards into the dry box. */
  const dried = async (i: number, dryer: string, setC: number, hours: number, day: number, weighed = true) => {
    const spool = s.spools[i]!,
      d = dryers[dryer]!
    const from = s.at(day, 8),
      to = new Date(Date.parse(from) + hours * HOUR).toISOString()
    const f = filamentOf(spool.polymer, spool.fraction, 1.75)!
    const { mass } = await massOfSpool(tx, spool.id)
    const onIt = spoolMass(mass, Date.parse(from)).g
    const soaked = newSpool(f, 50, 0)
    const stay = {
      from: 0,
      to: hours * HOUR,
      place: 'dryer' as const,
      airC: setC,
      rh: dryerRh(d.kind, setC, { airC: 23, rh: 50 }),
      fill: spoolFill(mass, Date.parse(from)),
    }
    const lost =
      ((meanWater(soaked.wound) - meanWater(stayed(soaked, f, stay, { ...START_WOUND, factor: TRUE_FACTOR }).wound)) /
        100) *
      onIt
    const before = Number((onIt + spool.tareG + 2 * (s.random() - 0.5)).toFixed(1))
    const { id } = await saveDrying(
      tx,
      dryingSchema.parse({
        spoolId: spool.id,
        dryerId: d.id,
        setC,
        plannedH: hours,
        grossG: weighed ? before : null,
        occurredAt: from,
        confirmed: ['attended', 'over-dry'],
      }),
      s.night,
    )
    await saveEnding(
      tx,
      endingSchema.parse({
        target: 'drying',
        targetId: id,
        actualC: setC - 1,
        grossG: weighed ? Number((before - lost * (0.93 + 0.14 * s.random())).toFixed(1)) : null,
        occurredAt: to,
        confirmed: ['lost-much', 'heavier'],
      }),
      s.day,
    )
    await event(i, 'in', to)
  }
  const end = s.lastDay
  // what is dried goes back into the box; the other filament that minds the air was put there when it was opened, S-03
  // was not
  const box = [5, 6, 7, 8, 10, 12, 14, 17, 28]
  for (const i of box) await event(i, 'in', new Date(Date.parse(s.spools[i]!.from) + 2 * HOUR).toISOString())
  await dried(0, 'Bench dryer', 70, 20, end - 6)
  await dried(1, 'Cabinet', 80, 16, end - 4)
  await dried(3, 'Bench dryer', 70, 14, end - 9)
  await dried(13, 'Bench dryer', 70, 12, end - 12)
  await dried(15, 'Oven', 100, 10, end - 15)
  await dried(11, 'Cabinet', 90, 8, end - 14)
  await dried(4, 'Oven', 120, 8, end - 8, false)
  await dried(9, 'Oven', 120, 7, end - 7, false)
  // loaded on their printers since, from the box into the room
  await event(0, 'loaded', s.at(end, 6), { headId: s.heads.get('Ribble/head') })
  await event(4, 'loaded', s.at(end - 1, 18), { headId: s.heads.get('Calder/head') })
  await event(13, 'loaded', s.at(end - 2, 9), { headId: s.heads.get('Wharfe/head') })
  // in a dryer now
  await saveDrying(
    tx,
    dryingSchema.parse({
      spoolId: s.spools[16]!.id,
      dryerId: dryers.Oven!.id,
      setC: 100,
      plannedH: 12,
      grossG: Number((spoolMass((await massOfSpool(tx, s.spools[16]!.id)).mass).g + s.spools[16]!.tareG).toFixed(1)),
      occurredAt: s.at(end, 4),
    }),
    s.night,
  )

  await warmUp(
    tx,
    s,
    'Ribble',
    { enclosed: true, active: false, bedShare: 0.55, chamberTauS: 900, heads: 1, roomC: 23 },
    100,
    null,
    end - 60,
    [3600, 3720],
  )
  await warmUp(
    tx,
    s,
    'Calder',
    { enclosed: true, active: true, bedShare: 0.4, chamberTauS: 700, heads: 1, roomC: 23 },
    150,
    85,
    end - 45,
    null,
  )
  await addCheckLine(
    tx,
    checkLineSchema.parse({
      says: 'The lid of the filter box is shut and its fan is on.',
      printerId: s.printers.get('Ribble'),
    }),
    s.lead,
  )
  const soak = await saveSoak(
    tx,
    soakSchema.parse({
      printerId: s.printers.get('Ribble'),
      materialId: s.materials.get('PA6-CF20'),
      targetC: 60,
      bedC: 100,
      part: 'small',
      minutes: 52,
      basis: 'warm-up record',
      occurredAt: s.at(end - 1, 8),
    }),
    s.day,
  )
  await saveEnding(tx, endingSchema.parse({ target: 'soak', targetId: soak.id, occurredAt: s.at(end - 1, 8.9) }), s.day)
  await saveChangeover(
    tx,
    changeoverSchema.parse({
      headId: s.heads.get('Wharfe/head'),
      nozzleId: s.nozzles.get('N-022'),
      fromMaterialId: s.materials.get('PC-CF10'),
      toMaterialId: s.materials.get('ABS'),
      atC: 260,
      volumeMm3: 900,
      clean: true,
      note: 'clear after a metre',
      occurredAt: s.at(end - 20, 9),
      confirmed: ['not-fitted'],
    }),
    s.day,
  )
  const anneal = await saveAnneal(
    tx,
    annealSchema.parse({
      name: 'cable guide, 12 of them',
      materialId: s.materials.get('PA6-CF20'),
      dryerId: dryers.Oven!.id,
      atC: 80,
      holdH: 6,
      rampCPerH: 40,
      thicknessMm: 8,
      occurredAt: s.at(end - 18, 8),
    }),
    s.day,
  )
  await saveEnding(
    tx,
    endingSchema.parse({
      target: 'anneal',
      targetId: anneal.id,
      actualC: 80,
      note: 'no warp',
      occurredAt: s.at(end - 18, 18),
    }),
    s.day,
  )
}

/** A probe's readings of the stand-in's own chamber, every half minute; with a door opened between two times. */
async function warmUp(
  tx: Connection,
  s: ShopIds,
  printer: string,
  build: Build,
  bedC: number,
  chamberSetC: number | null,
  day: number,
  door: [number, number] | null,
): Promise<void> {
  const m = machine(build)
  m.bed.setC = bedC
  m.chamber.setC = chamberSetC ?? 0
  const readings = []
  for (let t = 0; t <= 7200; t += 30) {
    readings.push({ s: t, c: Number((m.chamber.readC + 0.2 * (s.random() - 0.5)).toFixed(1)) })
    m.doorOpen = door !== null && t >= door[0] && t < door[1]
    pass(m, 30)
  }
  await saveWarmUp(
    tx,
    warmUpSchema.parse({
      printerId: s.printers.get(printer),
      place: 'high',
      bedC,
      chamberSetC,
      roomC: build.roomC,
      readings,
      occurredAt: s.at(day, 11),
      note: door ? 'door opened once' : '',
    }),
    s.day,
  )
}
