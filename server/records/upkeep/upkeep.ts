/** How far upkeep has come, what is due of it, and what was found. */
import { sql } from 'drizzle-orm'
import type { z } from 'zod'
import { TEST_EVERY_DAYS, type Guard } from '#core/chamber'
import { guardsOf } from '#core/procedures'
import {
  comesInDays,
  dueOfComing,
  dueOfNoUpkeep,
  dueOfUntested,
  dueOfUpkeep,
  guardName,
  upkeepShare,
  type Due,
} from '#core/schedule'
import type { Upkeep, UpkeepLine, UpkeepPrinter, UpkeepTask } from '#shared/answers/upkeep'
import type { upkeepSchema } from '#shared/entries/upkeep'
import { guardDue } from '#shared/guard-state'
import { day } from '#shared/time'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { daysOf } from '../../db/lately'
import { upkeepEntries } from '../../db/schema'
import { notInFuture, refuseField } from '../entry/refusal'
import { shopSettings } from '../shop/settings'
import { takeForUpkeep } from '../stock/items'
import { lastTests, type TestRow } from './guards'

/** What was found, that the page lists. */
const MOST_ENTRIES = 60
const DAY_MS = 86_400_000
/** What comes within so many days is said beforehand. */
export const AHEAD_DAYS = 14
/** What a printer does a day is told by so many days, or by as many as it has been here. */
const LATELY_DAYS = 28
const HERE_DAYS = daysOf(sql`least(p.created_at, min(d.day)::timestamp at time zone 'UTC')`, LATELY_DAYS)

type Row = Omit<UpkeepTask, 'done' | 'share' | 'due' | 'inDays'> &
  Record<string, unknown> & {
    doneAt: string | null
    by: string | null
    found: string | null
    says: string | null
    /** What the printer did a day of late. */
    dayHours: number
    dayKg: number
  }

/** Rows of days of printer `k` after moment `since`: whole days from the table, the rest of the first from its runs. */
const WORKED = sql`left join lateral (
    select coalesce(sum(x.hours), 0)::float8 hours, coalesce(sum(x.unknown), 0)::int without_hours,
      coalesce(sum(x.filled), 0)::float8 / 1000 kg
    from (
      select d.hours, d.without_hours "unknown", d.filled_g filled from printer_days d
      where d.printer_id = k.printer_id and d.day > day_of(l.since)
      union all
      select coalesce(r.hours, 0), (r.hours is null)::int, (select sum(t.extruded_g) from run_tools t
        where t.run_id = r.id and t.filler_fraction > 0)
      from standing_runs r where r.printer_id = k.printer_id and r.ended_at > l.since
        and r.ended_at < (day_of(l.since) + 1)::timestamp at time zone 'UTC'
    ) x) w on true
  left join lateral (
    select coalesce(sum(extract(epoch from least(coalesce(s.ended_at, now()), s.occurred_at + interval '12 hours')
      - s.occurred_at) / 3600), 0)::float8 hours
    from standing_soaks s where s.printer_id = k.printer_id and s.occurred_at > l.since) s on true`

async function taskRows(db: Connection): Promise<Row[]> {
  return await db.execute<Row>(sql`
    select k.id, k.printer_id "printerId", k.kind, k.name, k.every_hours "everyHours", k.every_kg "everyKg",
      k.every_days "everyDays", k.guard, k.stock_item_id "stockItemId",
      k.stock_quantity "stockQuantity", k.basis, k.note, k.withdrawn, k.version,
      w.hours + s.hours hours, w.without_hours "withoutHours", w.kg,
      greatest(0, extract(epoch from now() - l.since) / 86400)::float8 days,
      l.at "doneAt", l."by", l.found, l.says, lately.hours "dayHours", lately.kg "dayKg"
    from upkeep_tasks k join printers p on p.id = k.printer_id
    left join lateral (
      select e.occurred_at, ${iso('e.occurred_at')} at, u.name "by", e.found, e.says from standing_upkeep_entries e
      join people u on u.id = e.person_id where e.task_id = k.id
      order by e.occurred_at desc, e.id desc limit 1) e on true
    cross join lateral (select coalesce(e.occurred_at, k.created_at) since, e.at, e."by", e.found, e.says) l
    ${WORKED}
    cross join lateral (select coalesce(sum(d.hours), 0)::float8 / ${HERE_DAYS} hours,
      coalesce(sum(d.filled_g), 0)::float8 / 1000 / ${HERE_DAYS} kg
      from printer_days d where d.printer_id = k.printer_id
        and d.day > day_of(now()) - ${sql.raw(String(LATELY_DAYS))}) lately
    order by k.printer_id, k.withdrawn, k.id`)
}

export interface UpkeepDue extends Due {
  printer: string
  /** In how many days it comes; null where nothing tells. */
  inDays: number | null
}

interface PrinterRow extends Record<string, unknown> {
  id: number
  name: string
  toCommission: boolean
  heated: boolean
}
/** Printers in use, and whether a chamber heater is among their parts. */
const printerRows = (db: Connection) =>
  db.execute<PrinterRow>(sql`
    select p.id, p.name, p.to_commission "toCommission",
      exists (select from part_stands s join parts a on a.id = s.part_id
        where s.printer_id = p.id and s.kind = 'fit' and a.role = 'chamber heater') heated
    from printers p where not p.out_of_use order by p.id`)

type Found = Omit<UpkeepDue, 'printer'>

/** Every printer in use with its upkeep, and what is due of it. */
async function listUpkeep(db: Connection): Promise<(UpkeepPrinter & { due: Found[] })[]> {
  const [printers, rows, tests, { timeZone }] = await Promise.all([
    printerRows(db),
    taskRows(db),
    lastTests(db),
    shopSettings(db),
  ])
  const nowMs = Date.now()
  const rowsOf = new Map<number, Row[]>(printers.map(p => [p.id, []]))
  for (const r of rows) rowsOf.get(r.printerId)?.push(r)
  return printers.map(({ toCommission, heated, ...p }) => {
    const guards = guardsOf({ parts: heated ? [{ role: 'chamber heater' }] : [] })
    const test = (guard: Guard) => tests.find(t => t.printerId === p.id && t.guard === guard) ?? null
    const tasks = rowsOf.get(p.id)!.map(r => taskOf(r, p.name, test, nowMs, timeZone))
    // until it is commissioned that alone is due of it
    const due = toCommission ? [] : dueOf(p.name, tasks, guards, test, nowMs)
    return { ...p, guards, tasks, due }
  })
}

/** What is due at a printer: its tasks, guards that nobody tested as one, and guards that are planned nowhere. */
function dueOf(
  printer: string,
  all: readonly UpkeepTask[],
  guards: readonly Guard[],
  test: (guard: Guard) => TestRow | null,
  nowMs: number,
): Found[] {
  const tasks = all.filter(t => !t.withdrawn)
  const untested = tasks.flatMap(t => (t.guard !== null && t.done === null ? [t.guard] : []))
  // one that did not trip is due whatever the shop wants no longer
  const unplanned = guards.filter(g => {
    const last = test(g)
    if (last === null || tasks.some(t => t.guard === g)) return false
    return !last.tripped || !all.some(t => t.guard === g)
  })
  const found = (due: Due | null, inDays: number | null = null): Found[] => (due === null ? [] : [{ ...due, inDays }])
  return [
    ...tasks.flatMap(t => (t.guard !== null && t.done === null ? [] : found(t.due ?? comingOf(printer, t), t.inDays))),
    ...found(dueOfUntested(printer, untested)),
    ...unplanned.flatMap(g => found(guardDue(printer, g, test(g), nowMs, TEST_EVERY_DAYS))),
    ...(all.length === 0 ? found(dueOfNoUpkeep(printer)) : []),
  ]
}

/** What is not due, and comes soon, on a day that can be told. */
const comingOf = (printer: string, t: UpkeepTask): Due | null =>
  t.inDays === null || t.inDays > AHEAD_DAYS ? null : dueOfComing(printer, t.name, t.inDays)

/** Field by field: there are many rows, and of an object with a rest taken off it every copy is slow. */
const plannedOf = (r: Row) => ({
  id: r.id,
  printerId: r.printerId,
  kind: r.kind,
  name: r.name,
  everyHours: r.everyHours,
  everyKg: r.everyKg,
  everyDays: r.everyDays,
  guard: r.guard,
  stockItemId: r.stockItemId,
  stockQuantity: r.stockQuantity,
  basis: r.basis,
  note: r.note,
  withdrawn: r.withdrawn,
  version: r.version,
  hours: r.hours,
  withoutHours: r.withoutHours,
  kg: r.kg,
  days: r.days,
})

function taskOf(
  row: Row,
  printer: string,
  test: (guard: Guard) => TestRow | null,
  nowMs: number,
  zone: string,
): UpkeepTask {
  const { doneAt, by, found, says, dayHours, dayKg } = row
  const r = plannedOf(row)
  const guarded = r.guard as Guard | null
  const every = { hours: r.everyHours, kg: r.everyKg, days: r.everyDays }
  if (guarded !== null) {
    const last = test(guarded)
    return {
      ...r,
      done: last && { at: last.at, by: last.by, found: last.tripped ? 'in order' : 'needs work', says: last.note },
      days: last === null ? r.days : (nowMs - Date.parse(last.at)) / DAY_MS,
      share: null,
      inDays: last === null ? null : Math.max(0, r.everyDays! - (nowMs - Date.parse(last.at)) / DAY_MS),
      due: r.withdrawn ? null : guardDue(printer, guarded, last, nowMs, r.everyDays!),
    }
  }
  const since = { hours: r.hours, kg: r.kg, days: r.days }
  const done = doneAt === null ? null : { at: doneAt, by: by!, found: found as UpkeepLine['found'], says: says! }
  const stand = {
    printer,
    name: r.name,
    kind: r.kind,
    every,
    since,
    withoutHours: r.withoutHours,
    doneOn: doneAt === null ? null : day(doneAt, zone),
    found: done?.found ?? null,
    says: says ?? '',
  }
  return {
    ...r,
    done,
    share: upkeepShare(every, since),
    inDays: comesInDays(every, since, { hours: dayHours, kg: dayKg }),
    due: r.withdrawn ? null : dueOfUpkeep(stand),
  }
}

/** All that is due of upkeep. */
export async function upkeepDue(db: Connection): Promise<UpkeepDue[]> {
  const printers = await listUpkeep(db)
  return printers.flatMap(p => p.due.map(d => ({ ...d, printer: p.name })))
}

export async function upkeepPage(db: Connection): Promise<Upkeep> {
  const [printers, entries] = await Promise.all([listUpkeep(db), listEntries(db)])
  return { printers: printers.map(({ due: _, ...p }) => p), entries }
}

async function listEntries(db: Connection): Promise<UpkeepLine[]> {
  return await db.execute<UpkeepLine & Record<string, unknown>>(sql`
    select e.id::int, k.id "taskId", k.name task, p.name printer, p.id "printerId", e.found, e.says,
      ${iso('e.occurred_at')} at, u.name "by",
      (select s.reason from strikes s where s.target = 'upkeep' and s.target_id = e.id) struck
    from (select * from upkeep_entries order by occurred_at desc, id desc limit ${MOST_ENTRIES}) e
    join upkeep_tasks k on k.id = e.task_id join printers p on p.id = k.printer_id
    join people u on u.id = e.person_id order by e.occurred_at desc, e.id desc`)
}

export async function saveUpkeep(
  tx: Connection,
  { confirmed: _, took, ...u }: z.output<typeof upkeepSchema>,
  personId: number,
): Promise<{ id: number }> {
  const occurredAt = notInFuture('occurredAt', u.occurredAt)
  const [task] = await tx.execute<{
    printerId: number
    guard: Guard | null
    itemId: number | null
    withdrawn: boolean
  }>(sql`select printer_id "printerId", guard, stock_item_id "itemId", withdrawn from upkeep_tasks
    where id = ${u.taskId}`)
  if (!task || task.withdrawn) refuseField('taskId', 'This is not among what is planned')
  if (task.guard !== null)
    refuseField('taskId', `${guardName(task.guard)}: log the test itself, what tripped and where`)
  const [row] = await tx
    .insert(upkeepEntries)
    .values({ ...u, printerId: task.printerId, occurredAt, personId })
    .returning({ id: upkeepEntries.id })
  if (took !== null && took > 0) {
    if (task.itemId === null) refuseField('took', 'Nothing of the shelf is named for this: edit what is planned')
    await takeForUpkeep(tx, { itemId: task.itemId, quantity: took, field: 'took' }, row!.id, occurredAt, personId)
  }
  return row!
}
