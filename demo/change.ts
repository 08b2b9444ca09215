/**
 * What the demo left half done: a swap that the night shift paused with the nozzle out and a note beside it, a printer
 * that was tagged out, and a new one of which the commissioning is under way; and two hotends wired ready on the shelf.
 */
import { STARTING_STACKS } from '#core/limits'
import { printerSchema } from '#shared/entries/printers'
import { procedureSchema, serviceTagSchema, shiftNoteSchema, tickSchema } from '#shared/entries/change'
import { assemblySchema, hotendSchema } from '#shared/entries/hotends'
import type { Connection } from '../server/db/client'
import { beginProcedure } from '../server/records/change/begin'
import { procedurePage } from '../server/records/change/procedures'
import { saveTick } from '../server/records/change/ticks'
import { saveServiceTag, saveShiftNote } from '../server/records/change/service'
import { addHotend, saveAssembly } from '../server/records/printers/bench'
import { listHotends } from '../server/records/printers/hotends'
import { addPrinter } from '../server/records/printers/stack-change'

interface Shop {
  printers: Map<string, number>
  heads: Map<string, number>
  nozzles: Map<string, number>
  /** A time so many days before the anchor. */
  daysAgo: (days: number, hour: number) => string
  technician: number
  night: number
  lead: number
}
/** The night shift got as far as this step of the swap. */
const LAST_DONE = 'look in'

export async function addChanges(tx: Connection, shop: Shop): Promise<void> {
  const { daysAgo } = shop
  const began = daysAgo(1, 22)
  const later = (minutes: number) => new Date(Date.parse(began) + minutes * 60_000).toISOString()
  const swap = {
    kind: 'swap',
    headId: shop.heads.get('Swale/hot')!,
    nozzleId: shop.nozzles.get('N-028')!,
    occurredAt: began,
  }
  const { id } = await beginProcedure(tx, procedureSchema.parse(swap), shop.night)
  const { steps } = await procedurePage(tx, id)
  const last = steps.findIndex(s => s.key === LAST_DONE)
  for (const [i, s] of steps.slice(0, last + 1).entries())
    await saveTick(
      tx,
      tickSchema.parse({
        procedureId: id,
        step: s.key,
        values: s.key === 'take' ? { lengthMm: 12.5 } : {},
        reading: s.wait && { c: s.wait.setC - 1 },
        occurredAt: later(3 + 4 * i),
      }),
      shop.night,
    )
  const note = {
    printerId: shop.printers.get('Swale')!,
    says: 'Called away in the middle of the swap: nozzle out, heater off, the block is still under the gantry.',
    occurredAt: later(40),
  }
  await saveShiftNote(tx, shiftNoteSchema.parse(note), shop.night)
  const tag = {
    printerId: shop.printers.get('Aire')!,
    why: 'the hotend fan stalls now and then',
    must: ['the hotend fan starts ten times of ten', 'runaway protection trips'],
    occurredAt: daysAgo(2, 16),
  }
  await saveServiceTag(tx, serviceTagSchema.parse(tag), shop.lead)
  await addSpareHotends(tx, shop)
  await addNewPrinter(tx, shop)
}

const sheetOf = (kind: string, limitC: number, more: object = {}) => ({
  kind,
  limitC,
  basis: 'data sheet' as const,
  ...more,
})
/** One for the open frames, of which the liner keeps a nozzle from being turned hot; one for the hot machines. */
async function addSpareHotends(tx: Connection, { daysAgo, nozzles, technician, lead }: Shop): Promise<void> {
  const cool = {
    note: 'wired for Aire and Nidd, 24 V',
    add: [
      sheetOf('aluminium block', 350),
      sheetOf('all-metal heat break', 500),
      sheetOf('cartridge heater', 400, { note: '40 W' }),
      sheetOf('bead thermistor, 10-bit reading', 300, { name: 'bead thermistor' }),
      { kind: 'silicone sock' },
    ],
    nozzleId: nozzles.get('N-024'),
    occurredAt: daysAgo(21, 14),
  }
  await addHotend(tx, hotendSchema.parse(cool), technician)
  const hot = {
    note: 'wired for Calder and Swale, 48 V',
    add: [
      sheetOf('plated copper block', 510),
      sheetOf('all-metal heat break', 510),
      sheetOf('high-temperature cartridge heater', 550, { note: '80 W' }),
      sheetOf('type K thermocouple', 700),
    ],
    occurredAt: daysAgo(90, 10),
  }
  const { id } = await addHotend(tx, hotendSchema.parse(hot), lead)
  const [line] = await listHotends(tx, [id])
  const replaced = {
    hotendId: id,
    text: 'thermocouple read 20 °C low at the bench: replaced; nozzle in',
    out: [line!.parts.find(p => p.role === 'sensor')!.id],
    add: [sheetOf('type K thermocouple', 700)],
    nozzleId: nozzles.get('N-040'),
    occurredAt: daysAgo(12, 11),
  }
  await saveAssembly(tx, assemblySchema.parse(replaced), technician)
}

/** Lune came two days ago; its wiring is still to be looked over. */
async function addNewPrinter(tx: Connection, { daysAgo, lead, technician }: Shop): Promise<void> {
  const { kind, heads, parts } = STARTING_STACKS.find(s => s.key === 'bed-heated enclosure')!
  const note = 'came two days ago'
  const entry = printerSchema.parse({ name: 'Lune', kind, note, toCommission: true, heads, parts })
  const { id: printerId } = await addPrinter(tx, entry, lead, new Date(daysAgo(2, 9)))
  const asked = { kind: 'commission', printerId, occurredAt: daysAgo(2, 10) }
  const { id } = await beginProcedure(tx, procedureSchema.parse(asked), technician)
  for (const [i, [step, values]] of Object.entries({
    unpack: {},
    locks: { locks: '4 clamps, 2 ties' },
    path: {},
  }).entries())
    await saveTick(
      tx,
      tickSchema.parse({ procedureId: id, step, values, occurredAt: daysAgo(2, 10.5 + 0.4 * i) }),
      technician,
    )
}
