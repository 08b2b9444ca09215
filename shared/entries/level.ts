/** Beds as they are screwed down, what is measured of them, and Z numbers found by hand. */
import { z } from 'zod'
import { Z_MM, Z_WAYS } from '#core/changeover'
import {
  BED_SIDE_MM,
  checkBed,
  checkLevel,
  CLOCKWISE,
  GAP_FELT_MM,
  HEIGHT_MM,
  LEVEL_BED_C,
  MESH_SIDE,
  MOST_ROUNDS,
  MOST_SCREWS,
  FEELER_POINTS,
  PITCH_MM,
  PLACE_MM,
} from '#core/level'
import { basis, between, confirmed, coreTakes, id, maybe, name, note, when } from './fields'

const place = { xMm: between(...PLACE_MM, 'mm'), yMm: between(...PLACE_MM, 'mm') }
/** What is known of a bed. */
export const bedShape = z.object({
  widthMm: between(...BED_SIDE_MM, 'mm'),
  depthMm: between(...BED_SIDE_MM, 'mm'),
  /** Places from the front left corner. */
  screws: z.array(z.object({ name: name(40), ...place })).max(MOST_SCREWS, `At most ${MOST_SCREWS} screws`),
  pitchMm: between(...PITCH_MM, 'mm'),
  clockwise: z.enum(CLOCKWISE, { error: 'Say what a clockwise turn does' }),
})
export const bedSchema = bedShape
  .extend({ printerId: id, basis, note })
  .superRefine((bed, ctx) => coreTakes(ctx, [], () => checkBed(bed)))

const height = between(...HEIGHT_MM, 'mm').nullable()
export const measuredShape = z.discriminatedUnion('how', [
  z.object({
    how: z.literal('feeler'),
    wantedMm: between(...GAP_FELT_MM, 'mm'),
    rounds: z
      .array(
        z
          .array(z.object({ ...place, gapMm: between(...GAP_FELT_MM, 'mm') }))
          .min(FEELER_POINTS[0], `At least ${FEELER_POINTS[0]} points`)
          .max(FEELER_POINTS[1], `At most ${FEELER_POINTS[1]} points`),
      )
      .min(1, 'Enter a round')
      .max(MOST_ROUNDS, `At most ${MOST_ROUNDS} rounds`),
  }),
  z.object({
    how: z.literal('mesh'),
    rows: z.array(z.array(height).max(MESH_SIDE[1])).max(MESH_SIDE[1]),
    leftMm: place.xMm,
    rightMm: place.xMm,
    frontMm: place.yMm,
    backMm: place.yMm,
    firstRow: z.enum(['front', 'back'], { error: 'Say where the first row is' }),
  }),
])
/** How long the bed had soaked when it was measured. */
const SOAKED_MIN = [0, 1440] as const
export const levelSchema = z.object({
  printerId: id,
  measured: measuredShape.superRefine((m, ctx) => coreTakes(ctx, [], () => checkLevel(m))),
  bedC: between(...LEVEL_BED_C, '°C'),
  soakedMin: maybe(...SOAKED_MIN, 'min').default(null),
  note,
  occurredAt: when,
  confirmed,
})

/** A Z number set by feeler, or read after a power-off; `way` where the printer's is not known yet. */
export const zRecordSchema = z.object({
  headId: id,
  why: z.enum(['feeler', 'power-off'], { error: 'Say which' }),
  zMm: between(...Z_MM, 'mm'),
  probeMm: maybe(...Z_MM, 'mm').default(null),
  way: z.enum(Z_WAYS, { error: 'Choose one' }).nullable().default(null),
  note,
  occurredAt: when,
  confirmed,
})
