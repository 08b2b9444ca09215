/** The bed of a printer: what is known of it, what was measured, and how Z wandered. */
import { z } from 'zod'
import { Z_WAYS } from '#core/changeover'
import { Z_WHYS } from '#core/level'
import { bedShape, measuredShape } from '../entries/level'
import { basis, id, mark, maybe, number, struckFor, text, time } from './parts'

export const bedRow = bedShape.extend({ id, printerId: id, basis, note: text, version: id })
export type BedRow = z.output<typeof bedRow>

const levelLine = z.object({
  id,
  at: time,
  by: text,
  how: z.enum(['feeler', 'mesh']),
  bedC: number,
  rangeMm: number,
  warpMm: maybe(number),
  mark,
  says: text,
  note: text,
  struck: struckFor,
})
export type LevelLine = z.output<typeof levelLine>

const zLine = z.object({
  id,
  at: time,
  by: text,
  why: z.enum(Z_WHYS),
  zMm: number,
  probeMm: maybe(number),
  nozzle: text,
  nozzleId: id,
  note: text,
  struck: struckFor,
})
export type ZLine = z.output<typeof zLine>

export const levelPage = z.object({
  printerId: id,
  printer: text,
  bed: maybe(bedRow),
  /** What the last job asked of the bed, °C. */
  jobC: maybe(number),
  /** Every measure, the latest first. */
  levels: z.array(levelLine),
  /** The one that counts. */
  latest: maybe(z.object({ id, measured: measuredShape, bedC: number, soakedMin: maybe(number) })),
  heads: z.array(
    z.object({
      id,
      name: text,
      place: text,
      nozzle: maybe(text),
      /** Which way its Z number counts; null until somebody said so. */
      way: maybe(z.enum(Z_WAYS)),
      /** What is wrong with the number that was read after a power-off; null while nothing is. */
      lost: maybe(text),
      records: z.array(zLine),
    }),
  ),
})
export type LevelPage = z.output<typeof levelPage>

/** What a measure says. */
export const levelEffect = z.object({ id, mark, says: text, action: text })
export const zEffect = z.object({ id, lost: maybe(text) })
