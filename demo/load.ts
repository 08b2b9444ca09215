/* eslint-disable max-lines -- the demo in the order in which it happens */
/**
 * Loads the demo: 14 months of the invented shop, made by a seeded generator and saved through the same records as real
 * entries, all in one transaction. The same seed and anchor give the same shop. True wear is known only to the
 * generator.
 */
import { sql } from 'drizzle-orm'
import { Scan, type FullScan } from '#core/gcode'
import { lengthForMassMm } from '#core/materials'
import { mulberry32, normalDraw } from '#core/numeric'
import { boreAfter, START_BORE_RATE, START_TIP_RATE } from '#core/wear'
import { startWindow } from '#core/limits'
import { changeSchema, printerSchema, shelfPartSchema } from '#shared/entries/printers'
import { gaugeSchema, nozzleSchema, nozzleTypeSchema } from '#shared/entries/nozzles'
import { materialSchema } from '#shared/entries/materials'
import { runSchema } from '#shared/entries/runs'
import { spoolEventSchema, spoolSchema } from '#shared/entries/spools'
import type { Connection, Database } from '../server/db/client'
import { saveFitting } from '../server/records/printers/fittings'
import { refreshStale } from '../server/records/nozzles/forecasts'
import { saveGauge } from '../server/records/nozzles/gauges'
import { saveJob } from '../server/records/runs/jobs'
import { storeRun } from '../server/records/runs/runs'
import { addMaterial } from '../server/records/materials/materials'
import { addPrinter, addShelfPart, saveChange } from '../server/records/printers/stack-change'
import { listStacks } from '../server/records/printers/stack-read'
import { addNozzle } from '../server/records/nozzles/nozzles'
import { addNozzleType } from '../server/records/nozzles/types'
import { addSpool, saveSpoolEvent } from '../server/records/spools/spools'
import { firstPeople, listPeople } from '../server/records/shop/people'
import { saveStrike } from '../server/records/entry/strikes'
import { addCards } from './cards'
import { addCases } from './cases'
import { addChanges } from './change'
import { addLevels } from './level'
import { addFlowBenches } from './flow'
import { jobFile } from './job-file'
import { addSetups, DEMO_PICTURES, pictureOfBore } from './pictures'
import { fillPrepare } from './prepare'
import { addSensorChecks } from './sensors'
import { addSurveys } from './surveys'
import { addCertificates, addPins, addStock, pinMarks } from './stores'
import { addUpkeep } from './upkeep'
import { addPinStudy, addWornOut } from './study'
import {
  MATERIALS,
  NOZZLE_TYPES,
  NOZZLES,
  PLANS,
  PRICES,
  PRINTERS,
  SHELF,
  SURFACE_DAYS,
  SURFACES_OF,
  type Work,
} from './shop'

const SEED = 1897
const DAYS = 425
/** The microscope came so many days ago. */
const PICTURED_DAYS = 260
const DAY = 86_400_000

interface NozzleState {
  id: number
  tag: string
  kappa: number
  lambda: number
  d0: number
  nominal: number
  wearKg: number
  sinceGaugeKg: number
  limitKg: number
}

/** True when the demo was loaded now, false when it was there already. */
export async function loadDemo(db: Database, anchor: Date, say: (text: string) => void = () => {}): Promise<boolean> {
  const loaded = await db.transaction(async tx => {
    const [set] = await tx.execute<{ demo_anchor: string | null }>(sql`select demo_anchor from settings for update`)
    if (set!.demo_anchor !== null) return false
    await fill(tx, anchor, say)
    await tx.execute(
      sql`update settings set shop_name = 'Hollin Mill Print Shop', time_zone = 'Europe/London', currency = 'EUR',
        prices = ${JSON.stringify(PRICES)}::jsonb, demo_anchor = ${anchor.toISOString()},
        dry_box_read_at = ${new Date(anchor.getTime() - 3 * DAY).toISOString()}`,
    )
    return true
  })
  if (loaded) await refreshStale(db, 1000)
  return loaded
}

async function fill(tx: Connection, anchor: Date, say: (text: string) => void): Promise<void> {
  const random = mulberry32(SEED)
  const at = (day: number, hour = 9) =>
    new Date(anchor.getTime() - (DAYS - day) * DAY - 3 * 3600_000 + (hour - 9) * 3600_000).toISOString()
  await firstPeople(tx)
  const [dayTech, nightTech, lead] = (await listPeople(tx)).map(p => p.id) as [number, number, number]
  const who = () => (random() < 0.65 ? dayTech : nightTech)

  const heads = new Map<string, number>()
  const printers = new Map<string, number>()
  for (const p of PRINTERS) {
    const { id, headIds } = await addPrinter(tx, printerSchema.parse(p), lead, new Date(at(0)))
    printers.set(p.name, id)
    p.heads.forEach((h, i) => heads.set(`${p.name}/${h.name}`, headIds[i]!))
  }
  const materials = new Map<string, number>()
  for (const m of MATERIALS) {
    const w = startWindow(m.polymer, m.filler)!
    materials.set(
      m.name,
      (
        await addMaterial(
          tx,
          materialSchema.parse({ ...m, ventilation: w.ventilation, facts: w.facts, sets: w.sets }),
          lead,
        )
      ).id,
    )
  }
  await addPins(tx, { lead })
  for (const { head: _, ...p } of SHELF) await addShelfPart(tx, shelfPartSchema.parse(p), lead)
  const types = new Map<string, number>()
  for (const t of NOZZLE_TYPES) types.set(t.name, (await addNozzleType(tx, nozzleTypeSchema.parse(t), lead)).id)
  const nozzles = new Map<string, NozzleState>()
  for (const [i, name] of NOZZLES.entries()) {
    const tag = `N-${String(i + 1).padStart(3, '0')}`
    const type = NOZZLE_TYPES.find(t => t.name === name)!
    const d0 = type.nominalBoreMm + 0.003 * normalDraw(random)
    const measured = random() < 0.8
    const receipt = measured
      ? {
          valueMm: Number((d0 + 0.002 * normalDraw(random)).toFixed(3)),
          uMm: 0.002,
          tipMm: Number((type.lengthMm + 0.01 * normalDraw(random)).toFixed(2)),
        }
      : null
    const { id } = await addNozzle(
      tx,
      nozzleSchema.parse({ tag, typeId: types.get(name), receivedAt: at(0), receipt }),
      lead,
    )
    nozzles.set(tag, {
      id,
      tag,
      d0,
      nominal: type.nominalBoreMm,
      wearKg: 0,
      sinceGaugeKg: 0,
      kappa: START_BORE_RATE[type.material] * Math.exp(0.3 * normalDraw(random)),
      lambda: START_TIP_RATE[type.material] * Math.exp(0.3 * normalDraw(random)),
      limitKg: (0.1 * type.nominalBoreMm ** 3 * 3.31) / (0.48 * START_BORE_RATE[type.material]),
    })
  }
  const spools = await addSpools(tx, materials, at, lead)
  const jobs = await addJobs(tx, lead)
  say('shop made; logging 14 months')

  const mind = { fittedIndex: new Map<string, number>() }
  const fit = async (plan: (typeof PLANS)[number], index: number, when: string, person: number) => {
    mind.fittedIndex.set(`${plan.printer}/${plan.head}`, index)
    await saveFitting(
      tx,
      {
        kind: 'fit',
        nozzleId: nozzles.get(plan.nozzles[index]!)!.id,
        headId: heads.get(`${plan.printer}/${plan.head}`)!,
        reason: '',
        occurredAt: when,
        confirmed: [],
      },
      person,
    )
  }
  const setups = await addSetups(tx, { read: at(3, 9), again: at(DAYS - 120, 9), phone: at(DAYS - 140, 15), lead })
  const pictures = { taken: 0, gauges: 0 }
  const gauge = async (n: NozzleState, when: string, person: number, more: Record<string, unknown> = {}) => {
    const d = boreAfter('sliding', n.d0, n.kappa, n.wearKg, n.nominal)
    const seen = d + 0.003 * normalDraw(random)
    const go = Math.floor(seen * 100) / 100
    const noGoMm = Number((go + 0.01).toFixed(2))
    const byValue = random() < 0.15
    const tip = random() < 0.4 ? Number((12.5 - n.lambda * n.wearKg + 0.01 * normalDraw(random)).toFixed(2)) : null
    const value = byValue ? { valueMm: Number((d + 0.005 * normalDraw(random)).toFixed(3)), uMm: 0.005 } : null
    // since the microscope came every third gauge is a picture
    const pictured =
      when > at(DAYS - PICTURED_DAYS) && pictures.gauges++ % 3 === 0 && pictures.taken < DEMO_PICTURES
        ? pictureOfBore(setups, d + 0.15 * Math.max(0, d - n.nominal), n.nominal, 40 + pictures.taken)
        : null
    if (pictured) pictures.taken++
    n.sinceGaugeKg = 0
    await saveGauge(
      tx,
      gaugeSchema.parse({
        nozzleId: n.id,
        occurredAt: when,
        tipMm: tip,
        confirmed: ['unexpected-bore:as-read', 'longer-tip'],
        ...(pictured ?? value ?? { goMm: go, noGoMm, ...pinMarks(go, noGoMm) }),
        ...more,
      }),
      person,
    )
    return seen
  }
  for (const plan of PLANS) await fit(plan, 0, at(1, 8), dayTech)

  const printedOn = new Map<string, number>()
  const surfaceFor = (material: string, when: string): string | null => {
    const all = SURFACES_OF[material]
    if (!all || when < at(DAYS - SURFACE_DAYS)) return null
    const before = printedOn.get(material) ?? 0
    printedOn.set(material, before + 1)
    return all[before % all.length]!
  }
  const run = async (
    plan: (typeof PLANS)[number],
    work: Work,
    when: string,
    person: number,
    more: Record<string, unknown> = {},
    share = 1,
  ) => {
    const n = nozzles.get(plan.nozzles[mind.fittedIndex.get(`${plan.printer}/${plan.head}`)!]!)!
    const m = MATERIALS.find(x => x.name === work.material)!
    const grams = Number((work.grams * share).toFixed(1))
    const spool = spools.find(s => s.material === work.material && s.left > grams + 5 && s.from <= when)
    if (spool) spool.left -= grams
    const job = jobs.get(`${work.name} ${work.material}`)
    const fromJob = job !== undefined && share === 1 && when > at(DAYS - 90)
    const { runId } = await storeRun(
      tx,
      runSchema.parse({
        printerId: printers.get(plan.printer),
        name: work.name,
        endedAt: when,
        hours: work.hours * share,
        outcome: 'finished',
        bedSetC: work.bedC,
        chamberSetC: work.chamberC,
        surface: surfaceFor(work.material, when),
        jobId: fromJob ? job : null,
        tools: [
          {
            tool: 0,
            headId: heads.get(`${plan.printer}/${plan.head}`),
            nozzleId: n.id,
            spoolId: spool?.id ?? null,
            materialId: materials.get(work.material),
            setC: work.nozzleC,
            amount: fromJob ? { kind: 'job' } : { kind: 'grams', grams },
          },
        ],
        ...more,
      }),
      person,
    )
    const wear = (grams / 1000) * (m.fillerFraction > 0 ? m.fillerFraction * m.abrasivity : 0.002)
    n.wearKg += wear
    n.sinceGaugeKg += wear
    return { runId, n }
  }

  // each printer's days, merged into one calendar so that entries come in the order they happened
  const calendar: { day: number; hour: number; plan: (typeof PLANS)[number] }[] = []
  for (const plan of PLANS) {
    for (let day = 2 + random() * 2; day < DAYS - 0.2; day += (7 / plan.weekly) * (0.6 + 0.8 * random()))
      calendar.push({ day: Math.floor(day), hour: 10 + Math.floor(random() * 8), plan })
  }
  calendar.sort((a, b) => a.day - b.day || a.hour - b.hour)
  const busyUntil = new Map<string, string>()
  const aireRuns: { when: string; day: number; nozzleId: number }[] = []
  let struck = 0
  const stories = { insert: false, brass: false }
  for (const { day, hour, plan } of calendar) {
    const when = at(day, hour)
    const key = `${plan.printer}/${plan.head}`
    if (when >= at(DAYS, 8) || when < (busyUntil.get(key) ?? '')) continue
    const person = who()
    const usual = plan.work[Math.floor(random() * plan.work.length)]!
    const index = mind.fittedIndex.get(key)!
    const spared =
      plan.lastFilledKg !== undefined &&
      index === plan.nozzles.length - 1 &&
      nozzles.get(plan.nozzles[index]!)!.wearKg > plan.lastFilledKg
    const work = spared ? plan.easy! : usual
    const failing = random() < 0.04
    const share = failing ? 0.2 + 0.6 * random() : 1
    const { n } = await run(
      plan,
      work,
      when,
      person,
      failing ? { outcome: 'failed', symptoms: [random() < 0.5 ? 'warped' : 'stringing'] } : {},
      share,
    )
    if (plan.printer === 'Aire') aireRuns.push({ when, day, nozzleId: n.id })
    if (!failing && struck < 3 && random() < 0.004) {
      struck++
      const twice = await run(plan, work, when, person, { confirmed: ['same-run:0'] })
      n.wearKg -=
        twice.n.wearKg > 0
          ? (work.grams / 1000) * (MATERIALS.find(x => x.name === work.material)!.fillerFraction || 0.002)
          : 0
      await saveStrike(tx, { target: 'run', targetId: twice.runId, reason: 'logged twice', confirmed: [] }, lead)
    }
    const next = index + 1
    if (plan.switchDay !== undefined && day > plan.switchDay && mind.fittedIndex.get(key) === 0) {
      await fit(plan, 1, at(day, hour + 2), person)
      busyUntil.set(key, at(day, hour + 2))
      continue
    }
    // the story of the insert that fell out
    if (!stories.insert && plan.printer === 'Calder' && day > 150) {
      stories.insert = true
      await run(
        plan,
        work,
        at(day, hour + 5),
        person,
        {
          outcome: 'failed',
          stopped: { kind: 'percent', value: 61 },
          symptoms: ['under-extruded', 'uneven lines'],
          note: 'lines twice as wide from layer 80 on',
        },
        0.61,
      )
      await saveGauge(
        tx,
        gaugeSchema.parse({
          nozzleId: n.id,
          occurredAt: at(day, hour + 6),
          shape: ['loose insert'],
          note: 'insert fell out when wiped',
        }),
        person,
      )
      await saveFitting(
        tx,
        {
          kind: 'retire',
          nozzleId: n.id,
          headId: null,
          reason: 'insert came out during a job',
          occurredAt: at(day, hour + 6.2),
          confirmed: [],
        },
        person,
      )
      await fit(plan, next, at(day, hour + 7), person)
      busyUntil.set(key, at(day, hour + 7))
      continue
    }
    // the story of the brass nozzle that met carbon fibre once too often
    if (!stories.brass && plan.printer === 'Aire' && n.wearKg > 0.02 && day > 200 && next < plan.nozzles.length) {
      stories.brass = true
      await run(
        plan,
        plan.work[3]!,
        at(day, hour + 3),
        person,
        { outcome: 'failed', symptoms: ['under-extruded'], note: 'walls not touching' },
        0.7,
      )
      await gauge(n, at(day, hour + 4), person, { shape: ['oval'], note: 'no pin fits evenly' })
      await saveFitting(
        tx,
        {
          kind: 'retire',
          nozzleId: n.id,
          headId: null,
          reason: 'worn oval by carbon fibre',
          occurredAt: at(day, hour + 4.2),
          confirmed: [],
        },
        person,
      )
      await fit(plan, next, at(day, hour + 5), person)
      busyUntil.set(key, at(day, hour + 5))
      continue
    }
    const every = n.limitKg / 5
    const lastWeek = plan.printer === 'Ribble' && day > DAYS - 6
    if (n.sinceGaugeKg > every && !lastWeek) {
      const seen = await gauge(n, at(day, hour + 1), person)
      if (seen > n.nominal * 1.1 && next < plan.nozzles.length) {
        await saveFitting(
          tx,
          {
            kind: 'retire',
            nozzleId: n.id,
            headId: null,
            reason: `bore past ${(n.nominal * 1.1).toFixed(2)} mm`,
            occurredAt: at(day, hour + 1.2),
            confirmed: [],
          },
          person,
        )
        await fit(plan, next, at(day, hour + 2), person)
        busyUntil.set(key, at(day, hour + 2))
      }
    }
  }

  // a brass nozzle worn out on purpose, in the first gap of a day and a half that Aire had after its first months
  const gap = aireRuns.findIndex((r, i) => {
    const next = aireRuns[i + 1]
    return r.day > 60 && next?.nozzleId === r.nozzleId && Date.parse(next.when) - Date.parse(r.when) > 1.6 * DAY
  })
  const brass = nozzles.get('N-035')!
  await addWornOut(tx, {
    nozzle: brass,
    before: aireRuns[gap]!.nozzleId,
    printerId: printers.get('Aire')!,
    headId: heads.get('Aire/head')!,
    materialId: materials.get('PLA-CF15')!,
    fraction: MATERIALS.find(m => m.name === 'PLA-CF15')!.fillerFraction,
    at: hours => new Date(Date.parse(aireRuns[gap]!.when) + (3 + hours) * 3600_000).toISOString(),
    person: dayTech,
  })

  // how far two people differ, by the pins
  const studied = ['N-001', 'N-003', 'N-010', 'N-011', 'N-012'].map(tag => nozzles.get(tag)!)
  await addPinStudy(tx, {
    people: [dayTech, nightTech],
    bores: new Map(studied.map(n => [n.id, boreAfter('sliding', n.d0, n.kappa, n.wearKg, n.nominal)])),
    at: minutes => at(DAYS - 19, 13 + minutes / 60),
    lead,
  })

  // whose displays can be trusted
  await addSensorChecks(tx, {
    printers,
    heads,
    daysAgo: (days, hour) => at(DAYS - days, hour),
    dueOn: at(DAYS + 40).slice(0, 10),
    technician: dayTech,
  })
  await addSurveys(tx, {
    printers,
    daysAgo: (days, hour) => at(DAYS - days, hour),
    technician: dayTech,
    random: mulberry32(SEED + 1),
  })

  // upkeep that shows in the printer's history
  const ribbleBelts = (await listStacks(tx)).find(p => p.name === 'Ribble')!.parts.find(p => p.role === 'belts')!
  await saveChange(
    tx,
    changeSchema.parse({
      printerId: printers.get('Ribble'),
      text: 'New belts, tension set cold and checked hot',
      occurredAt: at(DAYS - 61, 8),
      remove: [ribbleBelts.id],
      add: [{ kind: 'belts', headId: null, basis: 'data sheet', note: 'rubber with glass cord' }],
    }),
    dayTech,
  )

  // how things stand today
  const aire = PLANS.find(p => p.printer === 'Aire')!
  const last = aire.nozzles.length - 1
  if (mind.fittedIndex.get('Aire/head') !== last) await fit(aire, last, at(DAYS, 8.5), dayTech)
  await run(
    aire,
    { name: 'bobbin clip', material: 'PA12-CF15', grams: 210, hours: 7, nozzleC: 275, bedC: 80, chamberC: null },
    at(DAYS, 9.5),
    nightTech,
    {
      outcome: 'failed',
      stopped: { kind: 'percent', value: 3 },
      symptoms: ['under-extruded'],
      note: 'stopped by the night technician',
    },
    0.03,
  )
  const ribble = PLANS.find(p => p.printer === 'Ribble')!
  await run(ribble, ribble.work[0]!, at(DAYS, 10.5), dayTech)
  await fillPrepare(tx, {
    printers,
    heads,
    materials,
    nozzles: new Map([...nozzles].map(([tag, n]) => [tag, n.id])),
    at,
    lastDay: DAYS,
    day: dayTech,
    night: nightTech,
    lead,
    random,
    spools: spools.map(s => {
      const m = MATERIALS.find(x => x.name === s.material)!
      return { ...s, polymer: m.polymer, fraction: m.fillerFraction }
    }),
  })
  const callipersMm = [1.74, 1.75, 1.75]
  const spoolOf = (material: string) => spools.filter(s => s.material === material).at(-1)!.id
  await addFlowBenches(tx, [
    {
      printer: 'Wharfe',
      headId: heads.get('Wharfe/head')!,
      spoolId: spoolOf('PA12-CF15'),
      temperaturesC: [265, 285],
      flowsMm3S: [6, 8, 10, 12, 14],
      callipersMm,
      at: at(DAYS - 9, 7),
      person: nightTech,
      note: 'under-extruded at speed since the new gears',
    },
    {
      printer: 'Ribble',
      headId: heads.get('Ribble/head')!,
      spoolId: spoolOf('PC'), // no fibre: what is left of N-014 is a story of its own
      temperaturesC: [285],
      flowsMm3S: [8, 10, 12, 14, 16],
      callipersMm: null,
      at: at(DAYS - 2, 7),
      person: dayTech,
      note: '',
    },
  ])
  await addCards(tx, { materials, types, printers, person: dayTech })
  await addCases(
    tx,
    heads,
    { beforeBench: at(DAYS - 10, 14), afterBench: at(DAYS - 9, 12), today: hour => at(DAYS, hour) },
    { day: dayTech, night: nightTech },
  )
  const late = {
    printers,
    heads,
    nozzles: new Map([...nozzles].map(([tag, n]) => [tag, n.id])),
    daysAgo: (days: number, hour: number) => at(DAYS - days, hour),
    technician: dayTech,
    night: nightTech,
    lead,
  }
  await addChanges(tx, late)
  await addLevels(tx, late)
  await addUpkeep(tx, late)
  await addCertificates(tx, late)
  await addStock(tx, { ...late, types })
}

async function addSpools(
  tx: Connection,
  materials: Map<string, number>,
  at: (day: number, hour?: number) => string,
  lead: number,
) {
  const kinds = [
    'PA6-CF20',
    'PA6-CF20',
    'PA6-CF20',
    'PA6-CF20',
    'PEEK-CF10',
    'PEEK-CF10',
    'PEEK-CF10',
    'PEI',
    'PEI',
    'PPS-CF15',
    'PPS-CF15',
    'PC-CF10',
    'PC-CF10',
    'PA12-CF15',
    'PA12-CF15',
    'PPA-CF20',
    'PPA-CF20',
    'PPA-CF20',
    'ABS',
    'ABS',
    'PETG-GF10',
    'PETG-GF10',
    'PETG',
    'PETG',
    'PLA',
    'PLA',
    'PLA-CF15',
    'PLA glow',
    'PC',
    'PLA',
  ]
  const out: { id: number; material: string; left: number; netG: number; tareG: number; from: string }[] = []
  for (const [i, material] of kinds.entries()) {
    const netG = !/PEEK|PEI|PPS/.test(material) && i % 3 === 0 ? 2000 : 1000
    const { id } = await addSpool(
      tx,
      spoolSchema.parse({
        tag: `S-${String(i + 1).padStart(2, '0')}`,
        materialId: materials.get(material),
        diameterMm: 1.75,
        netG,
        tareG: netG === 2000 ? 320 : 210,
        hub: /PP|PEEK|PEI/.test(material) ? 'high-temperature' : ['polycarbonate', 'cardboard'][i % 2],
      }),
      lead,
    )
    const from = at(DAYS - 30 + (i % 4))
    await saveSpoolEvent(tx, spoolEventSchema.parse({ spoolId: id, kind: 'opened', occurredAt: from }), lead)
    out.push({ id, material, left: netG, netG, tareG: netG === 2000 ? 320 : 210, from })
  }
  return out
}

/** A few job files of the shop's usual parts, read by the scanner like any other. */
async function addJobs(tx: Connection, lead: number): Promise<Map<string, number>> {
  const out = new Map<string, number>()
  for (const plan of PLANS)
    for (const w of plan.work) {
      const key = `${w.name} ${w.material}`
      if (out.has(key)) continue
      const density = MATERIALS.find(m => m.name === w.material)!.densityGCm3!
      const bytes = new TextEncoder().encode(
        jobFile({
          name: w.name,
          lengthMm: lengthForMassMm(w.grams, 1.75, density),
          hours: w.hours,
          nozzleC: w.nozzleC,
          bedC: w.bedC,
          chamberC: w.chamberC,
        }),
      )
      const scan = new Scan({ totalBytes: bytes.length })
      scan.push(bytes)
      const { createHash } = await import('node:crypto')
      const result: FullScan = scan.finish()
      const { id } = await saveJob(
        tx,
        {
          name: `${w.name.replaceAll(' ', '-').replace('×', 'x')}_${w.material}.gcode`,
          contentSha256: createHash('sha256').update(bytes).digest('hex'),
          sizeBytes: bytes.length,
          scan: result as never,
        },
        lead,
      )
      out.set(key, id)
    }
  return out
}
