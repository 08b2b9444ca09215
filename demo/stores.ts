/** Stores of the demo: pins, one of them re-certified 4 µm off; spares with minimums, what came and went of them. */
import { mulberry32 } from '#core/numeric'
import type { StockKind, StockMove, StockUnit, UsedBy } from '#core/stock'
import { pinCertificateSchema, pinFields } from '#shared/entries/pins'
import { stockItemFields, stockMoveSchema } from '#shared/entries/stock'
import { sql } from 'drizzle-orm'
import type { Connection } from '../server/db/client'
import { addPin, saveCertificate } from '../server/records/pins/pins'
import { iso } from '../server/db/iso'
import { addStockItem, saveStockMove, takeForUpkeep } from '../server/records/stock/items'

/** The pins of the shop, mm; P-42 is the one that was found small. */
const PINS_MM = [0.4, 0.41, 0.42, 0.43, 0.44, 0.45]
const SMALL_MM = 0.42
export const markOf = (mm: number) => `P-${Math.round(mm * 100)}`
/** Gauges of the demo name the pin that was found small; the others were not written down. */
export const pinMarks = (goMm: number, noGoMm: number) => ({
  ...(Math.abs(goMm - SMALL_MM) < 0.001 ? { goPin: markOf(SMALL_MM) } : {}),
  ...(Math.abs(noGoMm - SMALL_MM) < 0.001 ? { noGoPin: markOf(SMALL_MM) } : {}),
})

interface Shop {
  /** A time so many days before the anchor. */
  daysAgo: (days: number, hour: number) => string
  technician: number
  lead: number
}
const dayOf = (iso: string) => iso.slice(0, 10)

/** Before anything is gauged. */
export async function addPins(tx: Connection, { lead }: { lead: number }): Promise<void> {
  for (const nominalMm of PINS_MM) await addPin(tx, pinFields.parse({ mark: markOf(nominalMm), nominalMm }), lead)
}

/** What they measured when they came, and the small one again. */
export async function addCertificates(tx: Connection, { daysAgo, lead }: Shop): Promise<void> {
  const pins = await tx.execute<{ id: number; nominal: number }>(
    sql`select id, nominal_mm nominal from pins order by id`,
  )
  for (const [i, { id: pinId, nominal }] of pins.entries()) {
    const expired = nominal === 0.45
    const first = {
      pinId,
      sizeMm: Number((nominal + [0.0002, -0.0003, 0.0001, 0, 0.0004, -0.0002][i]!).toFixed(4)),
      expandedUm: 1,
      dueOn: dayOf(daysAgo(expired ? 9 : -95, 12)),
      note: 'with the set',
      occurredAt: daysAgo(418, 10),
    }
    await saveCertificate(tx, pinCertificateSchema.parse(first), lead)
    if (nominal !== SMALL_MM) continue
    const again = {
      pinId,
      sizeMm: 0.416,
      expandedUm: 1,
      dueOn: dayOf(daysAgo(-357, 12)),
      note: 'worn where it is held',
      occurredAt: daysAgo(8, 10),
    }
    await saveCertificate(tx, pinCertificateSchema.parse(again), lead)
  }
}

interface Kept {
  kind: StockKind
  name: string
  unit?: StockUnit
  minimum: number
  usedBy?: UsedBy
  price: number | null
  /** Counted so many days ago, and what is left of it after what was used since. */
  counted: number
  used: number
  received?: number
  ordered?: number
  /** The kind of upkeep that takes one. */
  upkeep?: string
}
const KEPT: Kept[] = [
  { kind: 'belt', name: 'Toothed belt 6 mm, 2 m', minimum: 2, price: 9, counted: 4, used: 3, upkeep: 'belts' },
  { kind: 'filter', name: 'Carbon filter', minimum: 2, price: 14, counted: 5, used: 5, ordered: 4, upkeep: 'filters' },
  { kind: 'gear', name: 'Hardened drive gear', minimum: 1, price: 18, counted: 2, used: 1, upkeep: 'gears' },
  { kind: 'tube', name: 'Tube 4 × 2 mm, 1 m', minimum: 2, price: 6, counted: 5, used: 2 },
  { kind: 'sheet', name: 'Glass sheet 310 mm', minimum: 1, price: 24, counted: 2, used: 2 },
  { kind: 'heater', name: 'Heater cartridge 50 W', minimum: 1, price: 11, counted: 2, used: 0 },
  { kind: 'sensor', name: 'Platinum sensor 3 mm', minimum: 1, price: 16, counted: 2, used: 1, received: 1 },
  {
    kind: 'other',
    name: 'Silicone sock',
    minimum: 4,
    price: 2.5,
    counted: 9,
    used: 6,
    received: 5,
    usedBy: 'a nozzle swap',
  },
  { kind: 'desiccant', name: 'Desiccant, orange', unit: 'g', minimum: 500, price: 0.02, counted: 2000, used: 1200 },
]

/** What is kept, counted half a year ago and used up since; a line each for two types of nozzle. */
export async function addStock(
  tx: Connection,
  { types, ...shop }: Shop & { types: ReadonlyMap<string, number> },
): Promise<void> {
  const random = mulberry32(77)
  const item = async (k: Partial<Kept> & Record<string, unknown>) => {
    const { counted: _c, used: _u, received: _r, ordered: _o, upkeep: _k, ...fields } = k
    const pricedOn = k.price == null ? null : dayOf(shop.daysAgo(70, 12))
    return (await addStockItem(tx, stockItemFields.parse({ ...fields, pricedOn }), shop.lead)).id
  }
  const move = (itemId: number, kind: StockMove, quantity: number, days: number) =>
    saveStockMove(
      tx,
      stockMoveSchema.parse({ itemId, kind, quantity, occurredAt: shop.daysAgo(days, 14) }),
      shop.technician,
    )
  /** What was put right in the time since took one; the others nobody said what they were for. */
  const takenFor = async (upkeep: string, itemId: number, most: number) => {
    const entries = await tx.execute<{ id: number; at: string }>(sql`
      select e.id::int, ${iso('e.occurred_at')} at from upkeep_entries e join upkeep_tasks k on k.id = e.task_id
      where k.kind = ${upkeep} and e.found in ('put right', 'replaced')
        and e.occurred_at > ${shop.daysAgo(180, 0)}::timestamptz order by e.occurred_at desc limit ${most}`)
    for (const e of entries)
      await takeForUpkeep(tx, { itemId, quantity: 1, field: 'took' }, e.id, new Date(e.at), shop.technician)
    return entries.length
  }
  for (const k of KEPT) {
    const id = await item({ ...k })
    await move(id, 'counted', k.counted, 190)
    const each = k.unit === 'g' ? 200 : 1
    const when = Array.from({ length: k.used / each }, () => 3 + Math.floor(random() * 180)).sort((a, b) => b - a)
    if (k.received) await move(id, 'received', k.received, 187)
    const taken = k.upkeep === undefined ? 0 : await takenFor(k.upkeep, id, k.used)
    for (const days of when.slice(taken)) await move(id, 'used', each, days)
    if (k.ordered) await move(id, 'ordered', k.ordered, 2)
    if (k.upkeep !== undefined)
      await tx.execute(sql`update upkeep_tasks set stock_item_id = ${id}, stock_quantity = 1 where kind = ${k.upkeep}`)
  }
  for (const name of ['hardened steel 0.4', 'hardened steel 0.6'])
    await item({ kind: 'nozzle', name, nozzleTypeId: types.get(name)!, minimum: 2, price: null })
}
