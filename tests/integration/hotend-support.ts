/** A shop with two printers and spare hotends, and the changing of one walked through as a technician would. */
import { sql } from 'drizzle-orm'
import { HOTEND_GUARDS, type Step } from '#core/procedures'
import { procedureSchema } from '#shared/entries/change'
import { hotendSchema } from '#shared/entries/hotends'
import { nozzleSchema } from '#shared/entries/nozzles'
import { cutOutTestSchema } from '#shared/entries/plans'
import { strikeSchema } from '#shared/entries/log'
import { changeSchema } from '#shared/entries/printers'
import type { Database } from '../../server/db/client'
import { saveCutOutTest } from '../../server/records/chambers/plans'
import { beginProcedure } from '../../server/records/change/begin'
import { procedurePage } from '../../server/records/change/procedures'
import { saveTick } from '../../server/records/change/ticks'
import { saveStrike } from '../../server/records/entry/strikes'
import { addNozzle } from '../../server/records/nozzles/nozzles'
import { addHotend } from '../../server/records/printers/bench'
import { listHotends } from '../../server/records/printers/hotends'
import { addPrinter, saveChange } from '../../server/records/printers/stack-change'
import { tickOf } from './procedure-support'
import { ago, printerEntry, smallShop } from './support'

/** A shop with a second printer, and how hot its filament is turned at. */
export async function twoPrinters(db: Database) {
  const shop = await smallShop(db)
  const other = await db.transaction(tx => addPrinter(tx, printerEntry('Nidd'), 1, new Date(ago(60))))
  await db.execute(sql`insert into material_values (material_id, key, value, basis, entered_by)
    values (${shop.materialId}, 'swapC', 245, 'practice', 1)`)
  return { shop, other, ribble: shop.headId, nidd: other.headIds[0]! }
}
export const tagOn = async (db: Database, headId: number) =>
  (await listHotends(db)).find(h => h.place?.headId === headId)?.tag ?? null
export const message = (p: { errors?: { message: string }[] }) => p.errors![0]!.message
export const strike = (db: Database, target: string, targetId: number, confirmed: string[] = []) =>
  db.transaction(tx => saveStrike(tx, strikeSchema.parse({ target, targetId, reason: 'not so', confirmed }), 1))

const sheet = (kind: string, limitC: number) => ({ kind, limitC, basis: 'data sheet' as const })
/** What a wired spare has: a thermocouple instead of the thermistor of the printer. */
export const SPARE = [
  sheet('high-temperature cartridge heater', 500),
  sheet('type K thermocouple', 480),
  sheet('all-metal heat break', 470),
  sheet('plated copper block', 500),
]

export const newNozzle = (db: Database, typeId: number, tag: string) =>
  db.transaction(tx => addNozzle(tx, nozzleSchema.parse({ tag, typeId, receivedAt: ago(3) }), 1))

export const putTogether = (db: Database, more: object = {}) =>
  db.transaction(tx => addHotend(tx, hotendSchema.parse({ add: SPARE, occurredAt: ago(2), ...more }), 1))

export const change = (db: Database, printerId: number, more: object) =>
  db.transaction(tx =>
    saveChange(tx, changeSchema.parse({ printerId, text: 'hotends changed', occurredAt: ago(0.1), ...more }), 1),
  )

export const hotend = async (db: Database, id: number) => (await listHotends(db, [id]))[0]!

export const beginHotend = (db: Database, headId: number, hotendId: number, more: object = {}) =>
  db.transaction(tx =>
    beginProcedure(tx, procedureSchema.parse({ kind: 'hotend', headId, hotendId, occurredAt: ago(0), ...more }), 1),
  )

export const provedNow = (db: Database, printerId: number, guard: string, when = ago(0)) =>
  db.transaction(tx =>
    saveCutOutTest(tx, cutOutTestSchema.parse({ printerId, guard, tripped: true, atC: 60, occurredAt: when }), 1),
  )

/** What is entered at the steps of a hotend. */
const ENTERED: Record<string, Record<string, string | number>> = {
  cool: { coldC: 31 },
  ports: { 'port heater': 'B1, red and red', 'port sensor': 'T1, white' },
  firmware: { sensorType: 'type K, amplifier 1', ceilingC: 470 },
  cold: { showsC: 24 },
  tune: { loop: 'P 21.3, I 1.4, D 78' },
}
export const hotendTick = (id: number, s: Step, more: object = {}) => {
  const entry = tickOf(id, s)
  return { ...entry, values: { ...entry.values, ...ENTERED[s.key] }, ...more }
}
/** Ticks what is left, each proof made when its step comes; stops after the step `last`. */
export async function walkHotend(db: Database, id: number, last: string | null = null): Promise<Step[]> {
  const { steps, ticks, printerId } = await procedurePage(db, id)
  const done = ticks.filter(t => t.struck === null).map(t => t.step)
  for (const s of steps.filter(x => !done.includes(x.key))) {
    const guard = HOTEND_GUARDS.find(g => s.key === `guard ${g}`)
    if (guard) await provedNow(db, printerId, guard)
    await db.transaction(tx => saveTick(tx, hotendTick(id, s), 1))
    if (s.key === last) break
  }
  return steps
}
