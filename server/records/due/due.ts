/** All that is due: gathered from every subject by its own rule, put in one order, with what was put off. */
import {
  byWeight,
  dueOfBed,
  dueOfCertificate,
  dueOfSensor,
  dueOfSurvey,
  dueOfUnchecked,
  isPutOff,
  keyOf,
  type Due,
  type Station,
} from '#core/schedule'
import type { DueItem, DueList } from '#shared/answers/due'
import type { SensorLine } from '#shared/answers/sensors'
import { preparedDue, spoolsOut } from '#shared/prepared'
import { stateOf } from '#shared/sensor-state'
import type { Connection } from '../../db/client'
import { printersAndBench } from '../bench/floor'
import { listCoolDowns } from '../change/cool-downs'
import { bedsDue } from '../level/levels'
import { listSoaks } from '../prepare/soaks'
import { sensorsOfShop } from '../sensors/checks'
import { listReferences } from '../sensors/references'
import { lastSurveys } from '../chambers/surveys'
import { spoolStates } from '../spools/stands'
import { spoolsOfShop } from '../spools/spools'
import { AHEAD_DAYS, upkeepDue } from '../upkeep/upkeep'
import { listFeeds } from './feeds'
import { pinsDue } from '../pins/pins'
import { stockDue } from '../stock/stock'
import { standingSnoozes } from './standing-snoozes'

const DAY_MS = 86_400_000

type Found = Omit<DueItem, 'key' | 'snoozed'>
const now = (due: Due, printer: string | null, person: string | null = null): Found => ({
  ...due,
  printer,
  person,
  on: null,
})

export async function dueList(db: Connection): Promise<DueList> {
  const [items, feeds] = await Promise.all([dueItems(db), listFeeds(db)])
  const counts: Partial<Record<Station, number>> = {}
  for (const i of items)
    if (i.snoozed === null && i.on === null && i.mark !== 'fine') counts[i.station] = (counts[i.station] ?? 0) + 1
  return { items, counts, feeds, at: new Date().toISOString() }
}

/** Everything that is due or comes, the most pressing first. */
export async function dueItems(db: Connection): Promise<DueItem[]> {
  const nowMs = Date.now()
  const [bench, prepared, beds, verified, upkeep, short, pins, snoozes] = await Promise.all([
    ofBench(db),
    ofPrepare(db, nowMs),
    bedsDue(db),
    ofVerify(db, nowMs),
    ofUpkeep(db, nowMs),
    stockDue(db),
    pinsDue(db),
    standingSnoozes(db),
  ])
  const found: Found[] = [
    ...bench,
    ...prepared,
    ...beds.map(b => now(dueOfBed(b.printer, b.z, b.reason, b.action), b.printer)),
    ...verified,
    ...upkeep,
    ...short.map(due => now(due, null)),
    ...pins.map(({ due, on }) => ({ ...now(due, null), on })),
  ]
  const seen = new Set<string>()
  return found
    .sort(
      (a, b) =>
        Number(a.on !== null) - Number(b.on !== null) || (a.on ?? '').localeCompare(b.on ?? '') || byWeight(a, b),
    )
    .flatMap(f => {
      const key = keyOf(f, f.printer)
      // the same by two ways is told once, the weightier first
      if (seen.has(key)) return []
      seen.add(key)
      return [{ ...f, key, snoozed: isPutOff(f, f.printer, snoozes) ? snoozes.get(key)! : null }]
    })
}

/** What the Floor shows at each printer, with who has a procedure or a tag in hand. */
async function ofBench(db: Connection): Promise<Found[]> {
  const { bench, printers } = await printersAndBench(db)
  return bench
    .filter(b => b.verdict !== 'fine')
    .map(({ verdict, nozzle, to, printer, ...d }) => {
      const standing = printers.find(p => p.name === printer)?.standing
      const procedure = standing?.procedures.find(p => to === `/change/${p.id}`)
      return now({ ...d, mark: verdict, about: nozzle, open: to }, printer, procedure?.by ?? null)
    })
}

async function ofPrepare(db: Connection, nowMs: number): Promise<Found[]> {
  const [{ spools }, soaks, coolDowns, rows] = await Promise.all([
    spoolStates(db),
    listSoaks(db),
    listCoolDowns(db),
    spoolsOfShop(db),
  ])
  const left = (id: number) => rows.find(s => s.id === id) ?? null
  const p = { spools, soaks, coolDowns }
  return [...preparedDue(p, left, nowMs), ...spoolsOut(p)]
    .filter(x => x.due.mark !== 'fine')
    .map(x => now(x.due, x.printer))
}

const sensorName = (s: SensorLine) => (s.zone === 'hotend' ? `hotend${s.head === null ? '' : ` ${s.head}`}` : s.zone)
async function ofVerify(db: Connection, nowMs: number): Promise<Found[]> {
  const [sensors, references, surveys] = await Promise.all([sensorsOfShop(db), listReferences(db), lastSurveys(db)])
  const printers = [...new Set(sensors.map(s => s.printer))]
  const checked = printers.flatMap(printer => {
    const of = sensors.filter(s => s.printer === printer).map(s => ({ name: sensorName(s), state: stateOf(s) }))
    const unchecked = of.filter(x => x.state.check === null).map(x => x.name)
    return [
      ...of.map(({ name, state }) =>
        state.check === null
          ? null
          : dueOfSensor(printer, name, {
              failed: state.check.result.verdict === 'fail',
              isDue: state.isDue,
              nextInH: state.nextInH,
            }),
      ),
      dueOfUnchecked(printer, unchecked),
    ].flatMap(d => (d === null ? [] : [now(d, printer)]))
  })
  const certificates = references.flatMap(r => {
    if (r.withdrawn || r.dueOn === null) return []
    const due = dueOfCertificate(r.name, (Date.parse(r.dueOn) - nowMs) / DAY_MS)
    const on = Date.parse(r.dueOn) > nowMs ? new Date(r.dueOn).toISOString() : null
    return due === null ? [] : [{ ...now(due, null), on }]
  })
  const surveyed = surveys.flatMap(s => {
    const due = dueOfSurvey(s.printer, s.days)
    return due === null ? [] : [now(due, s.printer)]
  })
  return [...checked, ...certificates, ...surveyed]
}

async function ofUpkeep(db: Connection, nowMs: number): Promise<Found[]> {
  return (await upkeepDue(db)).flatMap(({ printer, inDays, ...due }) => {
    const isNow = due.mark !== 'fine'
    if (isNow) return [now(due, printer)]
    if (inDays === null || inDays > AHEAD_DAYS) return []
    return [{ ...now(due, printer), on: new Date(nowMs + inDays * DAY_MS).toISOString() }]
  })
}
