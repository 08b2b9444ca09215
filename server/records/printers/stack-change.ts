/** Adding a printer, changing what sits on one, a part for the shelf. */
import type { ZoneLimit } from '#shared/answers/printers'
import { sql } from 'drizzle-orm'
import type { z } from 'zod'
import { describedPart, isHotendRole, partOf, type DescribedPart, type Part } from '#core/limits'
import type { changeSchema, printerSchema, shelfPartSchema } from '#shared/entries/printers'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { heads, partEvents, parts, printers, stackChanges } from '../../db/schema'
import { hotendOnHead, saveFitting } from './fittings'
import { moveHotends, tagHeads } from './hotends'
import { refreshCeilings } from './ceilings'
import { notFound, notInFuture, refuseField } from '../entry/refusal'
import { unused } from '../entry/unused'
import { listStacks, listShelf } from './stack-read'

export async function storePart(tx: Connection, p: Part, personId: number, toShelf = false): Promise<number> {
  const [row] = await tx
    .insert(parts)
    .values({
      kind: p.kind,
      role: p.role as never,
      name: p.name,
      place: p.place,
      limitC: p.limitC,
      shortC: p.shortC,
      basis: p.basis,
      note: p.note,
      details: p.details,
      toShelf,
      enteredBy: personId,
    })
    .returning({ id: parts.id })
  return row!.id
}

export async function addPrinter(
  tx: Connection,
  p: z.output<typeof printerSchema>,
  personId: number,
  describedAt = new Date(),
): Promise<{ id: number; headIds: number[] }> {
  await unused(tx, printers, 'name', p.name, 'a printer')
  const [printer] = await tx
    .insert(printers)
    .values({
      name: p.name,
      kind: p.kind,
      note: p.note,
      restrictions: p.restrictions,
      toCommission: p.toCommission,
      createdBy: personId,
    })
    .returning({ id: printers.id })
  const headIds: number[] = []
  for (const [position, h] of p.heads.entries()) {
    if (p.heads.findIndex(o => o.name.toLowerCase() === h.name.toLowerCase()) !== position)
      refuseField(`heads.${position}.name`, 'Each head needs a name of its own')
    const [head] = await tx
      .insert(heads)
      .values({ printerId: printer!.id, name: h.name, position, createdBy: personId })
      .returning({ id: heads.id })
    headIds.push(head!.id)
  }
  const [change] = await tx
    .insert(stackChanges)
    .values({
      printerId: printer!.id,
      kind: 'described',
      text: `${p.parts.length} parts described`,
      occurredAt: describedAt,
      personId,
    })
    .returning({ id: stackChanges.id })
  for (const d of p.parts) {
    const headId = d.head === null ? null : headIds[d.head]!
    const partId = await storePart(tx, describedPart(d as DescribedPart, 0, headId), personId)
    await tx.insert(partEvents).values({ changeId: change!.id, partId, kind: 'fit', headId })
  }
  await tagHeads(tx, change!.id, headIds, personId)
  await refreshCeilings(tx, [printer!.id])
  return { id: printer!.id, headIds }
}

export async function addShelfPart(
  tx: Connection,
  p: z.output<typeof shelfPartSchema>,
  personId: number,
): Promise<{ id: number; name: string }> {
  const start = partOf(p.kind)
  const part = {
    ...start,
    name: p.name ?? start.name,
    limitC: p.limitC === undefined ? start.limitC : p.limitC,
    basis: p.basis ?? start.basis,
    note: p.note || start.note,
    details: { ...start.details, ...p.details },
  }
  return { id: await storePart(tx, part, personId, true), name: part.name }
}

/** Roles that are settings or places rather than things on a shelf. */
const NO_THING: readonly string[] = ['firmware', 'ventilation']

/** What was done to a printer, at one time: parts off, parts on, nozzles fitted. Answers what it now is. */
export async function saveChange(
  tx: Connection,
  c: z.output<typeof changeSchema>,
  personId: number,
): Promise<{ id: number; printer: string; limits: ZoneLimit[] }> {
  const occurredAt = notInFuture('occurredAt', c.occurredAt)
  const [printer] = await tx.execute<{ id: number; name: string }>(
    sql`select id, name from printers where id = ${c.printerId} for no key update`,
  )
  if (!printer) notFound('This printer')
  const before = (await listStacks(tx, [c.printerId]))[0]!
  const onHead = (headId: number | null, field: string) => {
    if (headId !== null && !before.heads.some(h => h.id === headId))
      refuseField(field, `${printer.name} has no such head`)
  }
  await notBeforeTheyCame(tx, [...c.remove, ...c.fit.map(f => f.partId)], occurredAt)
  const [change] = await tx
    .insert(stackChanges)
    .values({ printerId: c.printerId, kind: 'changed', text: c.text, occurredAt, personId })
    .returning({ id: stackChanges.id })
  c.hotends.forEach((h, i) => onHead(h.headId, `hotends.${i}.headId`))
  const { printerId, confirmed } = c
  await moveHotends(tx, c.hotends, { changeId: change!.id, printerId, occurredAt, personId, confirmed })
  /** Into a hotend, as far as the part belongs into one. */
  const intoHotend = async (role: string, headId: number | null, field: string) => {
    if (isHotendRole(role as Part['role']) && headId !== null && (await hotendOnHead(tx, headId)) === null)
      refuseField(field, 'No hotend is on this head: fit one first')
  }
  const added: { role: string; kind: string; headId: number | null }[] = []
  for (const [i, a] of c.add.entries()) {
    onHead(a.headId, `add.${i}.headId`)
    const part = describedPart({ ...a, head: null } as DescribedPart, 0, a.headId)
    await intoHotend(part.role, a.headId, `add.${i}.headId`)
    const partId = await storePart(tx, part, personId)
    await tx.insert(partEvents).values({ changeId: change!.id, partId, kind: 'fit', headId: a.headId })
    added.push(part as { role: string; kind: string; headId: number | null })
  }
  const shelf = c.fit.length > 0 ? await listShelf(tx) : []
  for (const [i, f] of c.fit.entries()) {
    onHead(f.headId, `fit.${i}.headId`)
    const part = shelf.find(p => p.id === f.partId)
    if (!part) refuseField(`fit.${i}.partId`, 'This part is not on the shelf; someone may have fitted it meanwhile')
    await intoHotend(part.role, f.headId, `fit.${i}.headId`)
    await tx.insert(partEvents).values({ changeId: change!.id, partId: f.partId, kind: 'fit', headId: f.headId })
    added.push(part as { role: string; kind: string; headId: number | null })
  }
  // what left in a hotend is on no printer any more
  const here = c.hotends.length === 0 ? before : (await listStacks(tx, [c.printerId]))[0]!
  for (const [i, partId] of c.remove.entries()) {
    const part = here.parts.find(p => p.id === partId)
    if (!part) refuseField(`remove.${i}`, 'This part is not on the printer; someone may have taken it off meanwhile')
    // the same part led or set otherwise is no second one on the shelf
    const kind =
      NO_THING.includes(part.role) || added.some(a => a.kind === part.kind && a.headId === part.headId)
        ? 'scrap'
        : 'shelve'
    await tx.insert(partEvents).values({ changeId: change!.id, partId, kind })
  }
  for (const [i, n] of c.nozzles.entries()) {
    onHead(n.headId, `nozzles.${i}.headId`)
    await saveFitting(
      tx,
      {
        kind: 'fit',
        nozzleId: n.nozzleId,
        headId: n.headId,
        reason: c.text.slice(0, 300),
        occurredAt: c.occurredAt,
        confirmed: c.confirmed,
      },
      personId,
    )
  }
  const then = (await listStacks(tx, [c.printerId]))[0]!
  for (const h of then.heads) {
    // a head from which the whole hotend came off has none, and heats nothing
    const off = c.hotends.some(x => x.headId === h.id && x.hotendId === null)
    const had = !off && before.parts.some(p => p.role === 'sensor' && p.headId === h.id)
    if (had && !then.parts.some(p => p.role === 'sensor' && p.headId === h.id))
      refuseField('remove', `${h.name} would be without a temperature sensor: fit another in the same change`)
  }
  return { id: change!.id, printer: printer.name, limits: (await refreshCeilings(tx, [c.printerId]))[0]! }
}

/** A part cannot leave a place before it came there. */
async function notBeforeTheyCame(tx: Connection, partIds: number[], occurredAt: Date): Promise<void> {
  for (const id of partIds) {
    const [last] = await tx.execute<{ name: string; since: string }>(sql`
      select a.name, ${iso('w.occurred_at')} since from part_places w
      join parts a on a.id = w.part_id where w.part_id = ${id} and w.occurred_at > ${occurredAt.toISOString()}`)
    if (last) refuseField('occurredAt', `${last.name} was moved at ${last.since}; enter a later time`)
  }
}
