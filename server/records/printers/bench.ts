/** Work at the bench: a hotend put together, parts and a nozzle in and out of one on the shelf. */
import { eq } from 'drizzle-orm'
import type { z } from 'zod'
import { describedPart, type DescribedPart } from '#core/limits'
import type { assemblySchema, hotendSchema } from '#shared/entries/hotends'
import type { HotendLine } from '#shared/answers/hotends'
import type { Connection } from '../../db/client'
import { assemblyEvents, fittings, hotends, nozzles, partEvents, stackChanges } from '../../db/schema'
import { notInFuture, refuseField } from '../entry/refusal'
import { unused } from '../entry/unused'
import { refreshForecast } from '../nozzles/forecasts'
import { nozzleAt } from './fittings'
import { hotendsNow, lockedHotend, newHotend, refuseEarlier } from './hotends'
import { storePart } from './stack-change'
import { listShelf } from './stack-read'

interface Bench {
  changeId: number
  hotend: { id: number; tag: string }
  occurredAt: Date
  personId: number
}
type Into = Pick<z.output<typeof hotendSchema>, 'add' | 'into' | 'nozzleId'>

const benchChange = async (tx: Connection, text: string, occurredAt: Date, personId: number): Promise<number> => {
  const [row] = await tx
    .insert(stackChanges)
    .values({ printerId: null, kind: 'bench', text, occurredAt, personId })
    .returning({ id: stackChanges.id })
  return row!.id
}

export async function addHotend(
  tx: Connection,
  h: z.output<typeof hotendSchema>,
  personId: number,
): Promise<{ id: number; tag: string }> {
  const occurredAt = notInFuture('occurredAt', h.occurredAt)
  if (h.tag !== null) await unused(tx, hotends, 'tag', h.tag, 'a hotend')
  const hotend = await newHotend(tx, personId, h.tag, h.note)
  const changeId = await benchChange(tx, `${hotend.tag} put together`, occurredAt, personId)
  await tx.insert(assemblyEvents).values({ changeId, hotendId: hotend.id, kind: 'shelve' })
  await putInto(tx, h, { changeId, hotend, occurredAt, personId })
  await oneOfEach(tx, hotend.id)
  return hotend
}

export async function saveAssembly(
  tx: Connection,
  a: z.output<typeof assemblySchema>,
  personId: number,
): Promise<{ id: number; tag: string }> {
  const occurredAt = notInFuture('occurredAt', a.occurredAt)
  const line = await lockedHotend(tx, a.hotendId)
  if (!line) refuseField('hotendId', 'This hotend is not known')
  if (line.place !== null) refuseField('hotendId', `${line.tag} is on ${line.place.words}: change its parts there`)
  refuseEarlier(line, occurredAt)
  const changeId = await benchChange(tx, a.text, occurredAt, personId)
  // it stays on the shelf; the entry tells whose change it is
  await tx.insert(assemblyEvents).values({ changeId, hotendId: line.id, kind: 'shelve' })
  const bench = { changeId, hotend: line, occurredAt, personId }
  for (const [i, partId] of a.out.entries()) {
    if (!line.parts.some(p => p.id === partId)) refuseField(`out.${i}`, `This part is not in ${line.tag}`)
    await tx.insert(partEvents).values({ changeId, partId, kind: 'shelve' })
  }
  if (a.nozzleOut || a.nozzleId !== null) await nozzleOut(tx, line, a.nozzleOut, bench)
  await putInto(tx, a, bench)
  await oneOfEach(tx, line.id)
  return { id: changeId, tag: line.tag }
}

async function putInto(tx: Connection, h: Into, { changeId, hotend, occurredAt, personId }: Bench): Promise<void> {
  const shelf = h.into.length > 0 ? await listShelf(tx) : []
  for (const [i, partId] of h.into.entries()) {
    if (!shelf.some(p => p.id === partId)) refuseField(`into.${i}`, 'This part does not lie on the shelf by itself')
    await tx.insert(partEvents).values({ changeId, partId, kind: 'shelve', hotendId: hotend.id })
  }
  for (const a of h.add) {
    const partId = await storePart(tx, describedPart({ ...a, head: null } as DescribedPart, 0, null), personId)
    await tx.insert(partEvents).values({ changeId, partId, kind: 'shelve', hotendId: hotend.id })
  }
  if (h.nozzleId === null) return
  const [nozzle] = await tx.select().from(nozzles).where(eq(nozzles.id, h.nozzleId)).for('no key update')
  if (!nozzle) refuseField('nozzleId', 'This nozzle is not known')
  const now = await nozzleAt(tx, nozzle.id, new Date())
  if (now.hotend !== null) refuseField('nozzleId', `${nozzle.tag} is in ${now.hotend}`)
  if (now.headId !== null) refuseField('nozzleId', `${nozzle.tag} is on a printer: take it off there first`)
  if (now.retired) refuseField('nozzleId', `${nozzle.tag} is retired`)
  await moveNozzle(tx, h.nozzleId, hotend.id, `put into ${hotend.tag}`, { changeId, occurredAt, personId })
}

async function nozzleOut(tx: Connection, line: HotendLine, must: boolean, bench: Bench): Promise<void> {
  if (line.nozzle === null) {
    if (must) refuseField('nozzleOut', `No nozzle is in ${line.tag}`)
    return
  }
  await moveNozzle(tx, line.nozzle.id as number, null, `taken out of ${line.tag}`, bench)
}

async function moveNozzle(
  tx: Connection,
  nozzleId: number,
  hotendId: number | null,
  reason: string,
  { changeId, occurredAt, personId }: Pick<Bench, 'changeId' | 'occurredAt' | 'personId'>,
): Promise<void> {
  await tx
    .insert(fittings)
    .values({ kind: 'remove', nozzleId, headId: null, hotendId, changeId, reason, occurredAt, personId })
  await refreshForecast(tx, nozzleId)
}

/** A hotend has one heater, one sensor, one block, one break at a time. */
async function oneOfEach(tx: Connection, hotendId: number): Promise<void> {
  const [line] = await hotendsNow(tx, [hotendId])
  const roles = line!.parts.map(p => p.role).filter(r => r !== 'other hotend part')
  const twice = roles.find((r, i) => roles.indexOf(r) !== i)
  if (twice) refuseField('add', `There would be two of: ${twice}. Take the other one out in the same change`)
}
