/** What a line of a table becomes: the entries that a person would type, saved by the same functions. */
import { sql } from 'drizzle-orm'
import type { z } from 'zod'
import { filamentOfName, nozzleTypeOfName, startMaterial, startNozzle, type TableName } from '#core/intake'
import { STARTING_STACKS } from '#core/limits'
import { FILLERS, type Filler } from '#core/wear'
import { listed } from '#core/words'
import { materialSchema } from '#shared/entries/materials'
import { nozzleSchema, nozzleTypeSchema } from '#shared/entries/nozzles'
import { fittingSchema, printerSchema } from '#shared/entries/printers'
import { personSchema } from '#shared/entries/shop'
import { spoolEventSchema, spoolSchema } from '#shared/entries/spools'
import { shareOf } from '#shared/share'
import type { Connection } from '../../db/client'
import { ask, refuseField } from '../entry/refusal'
import { addMaterial } from '../materials/materials'
import { addNozzle } from '../nozzles/nozzles'
import { addNozzleType } from '../nozzles/types'
import { saveFitting } from '../printers/fittings'
import { addPrinter } from '../printers/stack-change'
import { addPerson } from '../shop/people'
import { addSpool, saveSpoolEvent } from '../spools/spools'
import { gauges, weighings } from './entries'
import {
  added,
  checked,
  found,
  headNamed,
  here,
  momentOf,
  need,
  numberOf,
  orDefault,
  textOf,
  type By,
  type Line,
  type SaveLine,
} from './line'

/** Start values have the bases that an entry can have. */
type Sheet = z.input<typeof materialSchema>
/** A material with start values of its polymer. */
async function materialByName(
  tx: Connection,
  m: {
    name: string
    polymer: string
    filler: Filler
    fillerFraction: number
    densityGCm3: number | null
    note: string
  },
  by: By,
): Promise<{ id: number; isKnown: boolean }> {
  const start = startMaterial(m.polymer, m.filler, m.fillerFraction)
  const body = checked(materialSchema, {
    ...m,
    densityGCm3: m.densityGCm3 ?? start.densityGCm3,
    abrasivity: start.abrasivity,
    ventilation: start.window?.ventilation ?? null,
    // what is entered of it is its name and share; every value beside that is one to start from
    basis: 'practice',
    facts: (start.window?.facts ?? {}) as Sheet['facts'],
    sets: (start.window?.sets ?? []) as Sheet['sets'],
  })
  return { id: (await addMaterial(tx, body, by.personId)).id, isKnown: start.window !== null }
}

const people: SaveLine = async (tx, line) => {
  const name = need(line, 'name', 'a name')
  if (await found(tx, 'people', 'name', name)) return here(name)
  const role = orDefault(textOf(line, 'role')) as 'technician' | undefined
  await addPerson(tx, checked(personSchema, { name, role: role ?? 'technician' }))
  return added(`${name}, ${role ?? 'technician'}`)
}

const printers: SaveLine = async (tx, line, by) => {
  const name = need(line, 'name', 'a name')
  if (await found(tx, 'printers', 'name', name)) return here(name)
  const key = need(
    line,
    'stack',
    `what it starts from: ${listed(
      STARTING_STACKS.map(s => s.key),
      'or',
    )}`,
  )
  const stack = STARTING_STACKS.find(s => s.key === key)
  if (!stack)
    refuseField(
      'stack',
      `None of ${listed(
        STARTING_STACKS.map(s => s.key),
        'and',
      )}`,
    )
  const { kind, heads, parts } = stack
  await addPrinter(tx, checked(printerSchema, { name, kind, heads, parts, note: textOf(line, 'note') }), by.personId)
  return added(`${name}, ${kind}: ${parts.length} parts to start from`)
}

const types: SaveLine = async (tx, line, by) => {
  const name = need(line, 'name', 'a name')
  if (await found(tx, 'nozzle_types', 'name', name)) return here(name)
  const named = nozzleTypeOfName(name)
  const material = textOf(line, 'material') || named?.material || refuseField('material', 'Enter its material')
  const boreMm = numberOf(line, 'bore') ?? named?.boreMm ?? refuseField('bore', 'Enter its bore, mm')
  const own = {
    lengthMm: numberOf(line, 'length'),
    tipFlatMm: numberOf(line, 'tipFlat'),
    landMm: numberOf(line, 'land'),
    inletMm: numberOf(line, 'inlet'),
  }
  const start = startNozzle(boreMm)
  const missing = Object.values(own).some(v => v === null)
  const dimensions = Object.fromEntries(Object.entries(own).map(([k, v]) => [k, v ?? start[k as keyof typeof own]]))
  const notes = [textOf(line, 'note'), missing ? START_NOTE : '']
  const body = checked(nozzleTypeSchema, {
    ...start,
    ...(dimensions as typeof start),
    name,
    material: material as 'brass',
    nominalBoreMm: boreMm,
    torqueNm: numberOf(line, 'torque'),
    basis: missing ? 'practice' : 'data sheet',
    note: notes.filter(Boolean).join('; '),
  })
  await addNozzleType(tx, body, by.personId)
  return added(`${name}${missing ? ', with dimensions to start from' : ''}`)
}

const nozzles: SaveLine = async (tx, line, by) => {
  const tag = need(line, 'tag', 'a tag')
  const name = need(line, 'type', 'its type')
  const type = await found(tx, 'nozzle_types', 'name', name)
  const there = await found(tx, 'nozzles', 'tag', tag)
  if (there && there.type_id === type?.id) return here(tag)
  if (there) refuseField('tag', `${tag} is here already, and is no ${name}`)
  const receivedAt = momentOf(line, 'received', by) ?? by.now.toISOString()
  const bore = numberOf(line, 'bore')
  const receipt = bore === null ? null : { valueMm: bore, uMm: numberOf(line, 'boreU') ?? refuseField('boreU', SURE) }
  const on = await headOf(tx, line)
  // asked last: what is wrong with the line is said first
  const typeId = type?.id ?? (await addingType(tx, line, name, by))
  const body = checked(nozzleSchema, {
    tag,
    typeId,
    wasUsed: line.values.used === true,
    note: textOf(line, 'note'),
    receivedAt,
    receipt,
    confirmed: line.confirmed,
  })
  const { id: nozzleId } = await addNozzle(tx, body, by.personId)
  if (on === null) return added(`${tag}, ${name}, on the shelf`)
  const occurredAt = momentOf(line, 'fitted', by) ?? receivedAt
  const fit = { kind: 'fit' as const, nozzleId, headId: on.id, occurredAt, confirmed: line.confirmed }
  const { removed } = await saveFitting(tx, checked(fittingSchema, fit), by.personId)
  return added(`${tag}, ${name}, on ${on.place}${removed ? ` in place of ${removed}` : ''}`)
}
const SURE = 'Enter how sure the measured bore is, ± mm'

async function addingType(tx: Connection, line: Line, name: string, by: By): Promise<number> {
  const named = nozzleTypeOfName(name)
  if (!named)
    refuseField(
      'type',
      `No nozzle type is called ${name}: add it first, or write its material and bore, like brass 0.4`,
    )
  const { material, boreMm } = named
  const message = `No nozzle type is called ${name}. Add it: ${material}, ${boreMm} mm, with dimensions to start from?`
  ask([{ code: `new-type:${name.toLowerCase()}`, field: 'type', message }], line.confirmed)
  const start = { ...startNozzle(boreMm), basis: 'practice' as const, note: START_NOTE }
  const body = checked(nozzleTypeSchema, { name, material, nominalBoreMm: boreMm, ...start })
  return (await addNozzleType(tx, body, by.personId)).id
}
const START_NOTE = 'dimensions to start from; its sheet says them'

/** The head a line names: of a printer with one head the printer is enough. */
async function headOf(tx: Connection, line: Line): Promise<{ id: number; place: string } | null> {
  const [name, head] = [textOf(line, 'printer'), textOf(line, 'head')]
  if (name === '') {
    if (head !== '') refuseField('printer', 'Enter the printer this head is on')
    return null
  }
  const printer = await found(tx, 'printers', 'name', name)
  if (!printer) refuseField('printer', `No printer is called ${name}: add it first`)
  const heads = await tx.execute<{ id: number; name: string }>(
    sql`select id, name from heads where printer_id = ${printer.id} order by position, id`,
  )
  const { id, name: own } = headNamed(line, { name: printer.name, heads })
  return { id, place: heads.length > 1 ? `${printer.name}, ${own}` : printer.name }
}

const materials: SaveLine = async (tx, line, by) => {
  const name = need(line, 'name', 'a name')
  if (await found(tx, 'materials', 'name', name)) return here(name)
  const named = filamentOfName(name)
  const said = textOf(line, 'filler')
  const wt = numberOf(line, 'wt')
  const filler = (FILLERS.find(f => f === said) ?? (wt === 0 ? 'none' : named.filler)) as Filler
  const byName = filler === named.filler ? named.fillerFraction : null
  const share = wt === null ? byName : shareOf(wt)
  const fillerFraction = filler === 'none' ? (share ?? 0) : share
  if (fillerFraction === null) refuseField('wt', `Enter the share of ${filler}, wt%`)
  const polymer = textOf(line, 'polymer') || named.polymer
  const m = {
    name,
    polymer,
    filler,
    fillerFraction,
    densityGCm3: numberOf(line, 'density'),
    note: textOf(line, 'note'),
  }
  const { isKnown } = await materialByName(tx, m, by)
  return added(
    `${name}, ${isKnown ? `with start values of ${polymer}` : `without facts: ${polymer} has no start values`}`,
  )
}

const spools: SaveLine = async (tx, line, by) => {
  const tag = need(line, 'tag', 'a tag')
  const name = need(line, 'material', 'its material')
  const material = await found(tx, 'materials', 'name', name)
  const there = await found(tx, 'spools', 'tag', tag)
  if (there && there.material_id === material?.id) return here(tag)
  if (there) refuseField('tag', `${tag} is here already, and is no ${name}`)
  const [left, tareG] = [numberOf(line, 'left'), numberOf(line, 'tare')]
  if (left !== null && numberOf(line, 'gross') !== null) refuseField('left', 'Either what is left or the weight now')
  if (left !== null && tareG === null)
    refuseField('tare', 'Enter what the empty spool weighs: what is left is weighed with it')
  const grossG = left === null ? numberOf(line, 'gross') : left + tareG!
  const materialId = material?.id ?? (await addMaterialNamed(tx, name, line.confirmed, by))
  const body = checked(spoolSchema, {
    tag,
    materialId,
    diameterMm: numberOf(line, 'diameter') ?? 1.75,
    netG: numberOf(line, 'net') ?? 1000,
    tareG,
    hub: orDefault(textOf(line, 'hub')) as '' | undefined,
    note: textOf(line, 'note'),
  })
  const { id: spoolId } = await addSpool(tx, body, by.personId)
  const event = (kind: 'opened' | 'weighed', occurredAt: string, weight: number | null) =>
    saveSpoolEvent(
      tx,
      checked(spoolEventSchema, { spoolId, kind, grossG: weight, occurredAt, confirmed: line.confirmed }),
      by.personId,
    )
  const openedAt = momentOf(line, 'opened', by)
  if (openedAt !== null) await event('opened', openedAt, null)
  if (grossG === null) return added(`${tag}, ${name}, ${body.netG} g`)
  const { leftG } = await event('weighed', by.now.toISOString(), grossG)
  return added(`${tag}, ${name}, ${leftG.toFixed(0)} g left`)
}

/** What a name alone tells of a material that the shop does not have, and the question whether to add it. */
export function newMaterial(name: string) {
  const { fillerFraction, ...named } = filamentOfName(name)
  if (fillerFraction === null || startMaterial(named.polymer, named.filler, fillerFraction).window === null)
    refuseField('material', `No material is called ${name}: add it first`)
  const filled = named.filler === 'none' ? 'unfilled' : `${(fillerFraction * 100).toFixed(0)} wt% ${named.filler}`
  const message = `No material is called ${name}. Add it: ${named.polymer}, ${filled}, with start values?`
  const question = { code: `new-material:${name.toLowerCase()}`, field: 'material', message }
  return { question, material: { name, ...named, fillerFraction, densityGCm3: null, note: '' } }
}
/** Adds it where that was said yes to. */
export async function addMaterialNamed(tx: Connection, name: string, confirmed: string[], by: By): Promise<number> {
  const { question, material } = newMaterial(name)
  ask([question], confirmed)
  return (await materialByName(tx, material, by)).id
}

/** How a line is saved; runs are taken in all together. */
export const SAVE_LINE: Record<Exclude<TableName, 'runs'>, SaveLine> = {
  printers,
  types,
  nozzles,
  materials,
  spools,
  people,
  gauges,
  weighings,
}
