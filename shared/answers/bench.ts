/** What whole screens read in one go: the Floor, Equip, buying. */
import { SHAPES, SYMPTOMS } from '../choices'
import { z } from 'zod'
import type { Rules } from '#core/limits'
import { STATIONS } from '#core/schedule'
import { NOZZLE_MATERIALS } from '#core/wear'
import { standing } from './change'
import { hotendNow } from './hotends'
import { materialRow } from './materials'
import { id, mark, maybe, number, text, time } from './parts'
import { through } from './prepare'
import { changeLine, fittedNozzle, stackPrinter, storedPart, zoneLimit } from './printers'

const floorNozzle = z.object({
  id,
  tag: text,
  typeName: text,
  material: z.enum(NOZZLE_MATERIALS),
  nominalBoreMm: number,
  limitMm: maybe(number),
  fibreG: number,
  /** In kg of the last filled filament's filler; null before any filled job. */
  leftKg: z.object({ median: number, low80: number, high80: number }).nullable(),
  nextGaugeKg: maybe(number),
  lastMaterial: maybe(text),
  pastChance: number,
  stale: z.boolean(),
  shape: z.array(z.enum(SHAPES)),
  /** Gauged since its last run. */
  gaugedSince: z.boolean(),
})
export type FloorNozzle = z.output<typeof floorNozzle>
const floorHead = z.object({ id, name: text, nozzle: floorNozzle.nullable(), askedC: maybe(number) })
export type FloorHead = z.output<typeof floorHead>

export const floorPrinter = z.object({
  id,
  name: text,
  kind: text,
  heads: z.array(floorHead),
  limits: z.array(zoneLimit),
  last: z
    .object({
      runId: id,
      name: text,
      endedAt: time,
      outcome: z.enum(['finished', 'failed']),
      symptoms: z.array(z.enum(SYMPTOMS)),
      material: text,
      fibreG: number,
      bedC: maybe(number),
      chamberC: maybe(number),
      stopped: maybe(text),
      nozzle: maybe(z.object({ id, tag: text })),
      lookedAt: z.boolean(),
    })
    .nullable(),
  /** What keeps it from being ready for work. */
  standing,
  verdict: mark,
})
export type FloorPrinter = z.output<typeof floorPrinter>

/** Something due at the bench. */
export const benchLine = z.object({
  verdict: mark,
  printer: text,
  nozzle: maybe(text),
  reason: text,
  action: text,
  station: z.enum(STATIONS),
  to: text,
  of: text.optional(),
  isOver: z.boolean().optional(),
  weight: number,
})
export type BenchLine = z.output<typeof benchLine>

export const floor = z.object({
  printers: z.array(floorPrinter),
  bench: z.array(benchLine),
  /** What is put off until later, by its key (`keyOf`); it waits in the list of what is due. */
  putOff: z.array(text),
  shopName: text,
  timeZone: text,
  acceptedRisk: number,
  at: time,
})
export type Floor = z.output<typeof floor>

const rules = z.object({
  guardHotendC: number,
  guardBedC: number,
  guardChamberC: number,
  guardHotendCheckedC: number,
  guardBedCheckedC: number,
  guardChamberCheckedC: number,
  roomC: number,
  bendSafety: number,
  coarseC: number,
  labourPerHour: number,
}) satisfies z.ZodType<Rules>
const mixLine = z.object({ materialId: id, kg: number })
export type MixLine = z.output<typeof mixLine>
export const prices = z.record(text, z.object({ price: number, minutes: number }))

/** Setpoints that the shop's own jobs of a material used, °C; null where none was noted. */
const span = z.tuple([number, number]).nullable()
const usedLine = z.object({ materialId: id, nozzle: span, bed: span, chamber: span })
export type UsedLine = z.output<typeof usedLine>

export const equip = z.object({
  printers: z.array(stackPrinter),
  shelf: z.array(storedPart),
  nozzles: z.array(fittedNozzle),
  /** Hotends on the shelf that nobody has taken for a printer. */
  hotends: z.array(hotendNow),
  materials: z.array(materialRow),
  rules,
  prices,
  currency: text,
  mix: z.array(mixLine),
  mixDays: number,
  used: z.array(usedLine),
  changes: z.array(changeLine),
  /** What may still stand in each fitted nozzle: it decides how hot it is swapped. */
  through: z.array(through),
  /** Printers that are not ready for work, and why, by their ids. */
  standing: z.array(z.object({ printerId: id, standing })),
})
export type Equip = z.output<typeof equip>

export const buying = z.object({
  wear: z.array(z.object({ material: z.enum(NOZZLE_MATERIALS), meanLn: number, sd: number, sisters: id })),
  mix: z.array(mixLine.extend({ name: text, fillerFraction: number, abrasivity: number })),
  mixDays: number,
  /** Lives by what wore out, where enough did, kg of weighted fibre. */
  lives: z.array(z.object({ typeId: id, shape: number, scale: number, failures: id })),
})
export type Buying = z.output<typeof buying>
