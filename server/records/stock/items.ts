/** What is kept on the shelf: added, and what came and went of it. */
import { sql } from 'drizzle-orm'
import type { z } from 'zod'
import { quantityWords, TAGGED_KINDS, type StockKind, type StockUnit, type UsedBy } from '#core/stock'
import { WHOLE, type stockItemFields, type stockMoveSchema } from '#shared/entries/stock'
import type { Connection } from '../../db/client'
import { stockItems, stockMoves } from '../../db/schema'
import { ask, notInFuture, refuseField } from '../entry/refusal'

type Item = z.output<typeof stockItemFields>

export async function addStockItem(tx: Connection, s: Item, personId: number): Promise<{ id: number }> {
  await refuseStockItem(tx, s)
  const [row] = await tx
    .insert(stockItems)
    .values({ ...s, createdBy: personId })
    .returning({ id: stockItems.id })
  return row!
}

/** One line for each thing: a name, or a nozzle type, is kept once. */
export async function refuseStockItem(tx: Connection, s: Item, but: number | null = null): Promise<void> {
  if (s.withdrawn) return
  if (s.nozzleTypeId !== null) {
    const [type] = await tx.execute(sql`select id from nozzle_types where id = ${s.nozzleTypeId} for no key update`)
    if (!type) refuseField('nozzleTypeId', 'This nozzle type is not known')
    const [there] = await tx.execute(sql`select id from stock_items where nozzle_type_id = ${s.nozzleTypeId}
      and not withdrawn and id is distinct from ${but}`)
    if (there) refuseField('nozzleTypeId', 'Nozzles of this type have their line already: edit that')
  }
  const [named] = await tx.execute(sql`select id from stock_items where lower(name) = lower(${s.name})
    and not withdrawn and id is distinct from ${but}`)
  if (named) refuseField('name', `There is already a line ${s.name}`)
}

export interface StockItem {
  id: number
  kind: StockKind
  name: string
  unit: StockUnit
  withdrawn: boolean
}
export async function needItem(tx: Connection, id: number, field: string): Promise<StockItem> {
  const [item] = await tx.execute<StockItem & Record<string, unknown>>(
    sql`select id, kind, name, unit, withdrawn from stock_items where id = ${id} for no key update`,
  )
  if (!item) refuseField(field, 'This is not among what is kept')
  return item
}

interface Stand {
  onHand: number
  onOrder: number
}
export async function standOf(db: Connection, itemId: number): Promise<Stand> {
  const [row] = await db.execute<Stand & Record<string, unknown>>(
    sql`select on_hand "onHand", on_order "onOrder" from stock_stands where item_id = ${itemId}`,
  )
  return row ?? { onHand: 0, onOrder: 0 }
}

/** What an item is told that cannot be so. */
function refuseQuantity(item: StockItem, quantity: number, field: string): void {
  if (item.unit === 'pieces' && !Number.isInteger(quantity)) refuseField(field, WHOLE)
}

export async function saveStockMove(
  tx: Connection,
  { confirmed, ...m }: z.output<typeof stockMoveSchema>,
  personId: number,
): Promise<{ id: number } & Stand> {
  const occurredAt = notInFuture('occurredAt', m.occurredAt)
  const item = await needItem(tx, m.itemId, 'itemId')
  if (item.withdrawn) refuseField('itemId', `${item.name} is not kept any more`)
  refuseQuantity(item, m.quantity, 'quantity')
  if (TAGGED_KINDS.includes(item.kind) && m.kind !== 'ordered' && m.kind !== 'received')
    refuseField('kind', 'What has tags is counted by them: add it, fit it or retire it by its tag')
  if (m.kind === 'used' || m.kind === 'scrapped') {
    const { onHand } = await standOf(tx, m.itemId)
    if (m.quantity > onHand)
      ask(
        [
          {
            code: 'more-than-there',
            field: 'quantity',
            message:
              `The book says ${quantityWords(onHand, item.unit)} of ${item.name}. ` +
              `If it is right, the book is wrong by ${quantityWords(m.quantity - onHand, item.unit)}: count it.`,
          },
        ],
        confirmed,
      )
  }
  const [row] = await tx
    .insert(stockMoves)
    .values({ ...m, occurredAt, personId })
    .returning({ id: stockMoves.id })
  return { id: row!.id, ...(await standOf(tx, m.itemId)) }
}

/** What a piece of upkeep took from the shelf, with it. */
export async function takeForUpkeep(
  tx: Connection,
  take: { itemId: number; quantity: number; field: string },
  upkeepId: number,
  occurredAt: Date,
  personId: number,
): Promise<void> {
  const item = await needItem(tx, take.itemId, take.field)
  refuseQuantity(item, take.quantity, take.field)
  if (item.withdrawn || take.quantity === 0) return
  await tx
    .insert(stockMoves)
    .values({ itemId: item.id, kind: 'used', quantity: take.quantity, upkeepId, occurredAt, personId })
}

/** What each swap of a nozzle or change of a hotend takes, when one is done: one of each such thing. */
export async function takeForProcedure(
  tx: Connection,
  by: UsedBy,
  procedureId: number,
  occurredAt: Date,
  personId: number,
): Promise<void> {
  const items = await tx.execute<{ id: number }>(
    sql`select id from stock_items where used_by = ${by} and not withdrawn order by id for no key update`,
  )
  for (const { id } of items)
    await tx.insert(stockMoves).values({ itemId: id, kind: 'used', quantity: 1, procedureId, occurredAt, personId })
}
