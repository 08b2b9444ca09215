/** Set-ups that take pictures, their scales, and the picture that goes with a gauge. */
import { CROP_BYTES, SCALE_WAYS } from '../choices'
import { z } from 'zod'
import {
  FEWEST_PX,
  IMAGING_METHOD,
  KNOWN_MM,
  SCALE_DAYS,
  SCALE_DAYS_RANGE,
  SIDE_PX,
  TONES,
  U_UM_PER_PX,
  UM_PER_PX,
  WARNINGS,
} from '#core/imaging'
import { between, id, maybe, name, note, when } from './fields'

export const setupFields = z.object({
  name: name(60),
  /** A camera that focuses by itself: its scale does not last. */
  focusesItself: z.boolean().default(false),
  /** How its files store brightness; null while nobody has said. */
  tone: z.enum(TONES).nullable().default(null),
  dueDays: between(...SCALE_DAYS_RANGE, 'days')
    .int('Whole days')
    .default(SCALE_DAYS),
  note,
  withdrawn: z.boolean().default(false),
})

export const scaleSchema = z.object({
  setupId: id,
  how: z.enum(SCALE_WAYS),
  /** Bar to bar, the pin, or between the points. */
  knownMm: maybe(...KNOWN_MM, 'mm').default(null),
  umPerPx: between(...UM_PER_PX, 'µm per pixel'),
  uUmPerPx: between(...U_UM_PER_PX, 'µm per pixel'),
  note,
  occurredAt: when,
})

/** A picture that was made small, in base64. */
export const cropBase64 = z.base64().max(Math.ceil(CROP_BYTES / 3) * 4, `At most ${CROP_BYTES / 1000} KB`)
const BASE64 = /^[A-Za-z0-9+/]+={0,2}$/
const mm = between(0, 5, 'mm')
const um = between(0, 5000, 'µm')

/** What a picture showed, and the crop of it that is kept. */
export const pictureSchema = z.object({
  setupId: id,
  method: z.string().max(40).default(IMAGING_METHOD),
  umPerPx: between(...UM_PER_PX, 'µm per pixel'),
  uUmPerPx: between(...U_UM_PER_PX, 'µm per pixel'),
  /** The scale was read from this very picture. */
  isOwnScale: z.boolean().default(false),
  uSharedMm: between(0.00001, 0.2, 'mm'),
  largestMm: mm,
  smallestMm: mm,
  /** Direction of the long axis; only when photographed in place on the head, so that it means something. */
  longDeg: maybe(0, 360, '°').default(null),
  flareMm: mm.nullable(),
  edgeShare: between(0, 1, '(share)'),
  chips: z.array(z.object({ atDeg: between(0, 360, '°'), deepMm: mm, wideMm: mm })).max(60),
  warnings: z.array(z.enum(WARNINGS)).max(WARNINGS.length),
  budget: z.object({
    scaleUm: um,
    edgeUm: um,
    blurUm: um,
    noiseUm: um,
    toneUm: um,
    hiddenUm: um,
    bandUm: um,
    tiltUm: um,
  }),
  /** Across the mouth, and the blur of its edge, px. */
  acrossPx: between(FEWEST_PX, 20_000, 'px'),
  blurPx: between(0, 1000, 'px'),
  /** The mouth as it lies in the crop: half axes, direction in degrees; points of its edge from its middle, mm. */
  shape: z.object({
    aMm: mm,
    bMm: mm,
    longDeg: between(0, 360, '°'),
    points: z.array(z.tuple([between(-5, 5, 'mm'), between(-5, 5, 'mm'), z.boolean()])).max(400),
  }),
  /** The crop, encoded anew in the browser: no place, no camera, nothing but the picture. */
  crop: z.object({
    base64: z
      .string()
      .max(Math.ceil((CROP_BYTES * 4) / 3) + 4, `At most ${CROP_BYTES / 1000} KB`)
      .regex(BASE64, 'Not a picture in base64'),
    umPerPx: between(...UM_PER_PX, 'µm per pixel'),
    /** Where the middle of the mouth lies in it, px. */
    x: between(0, SIDE_PX[1], 'px'),
    y: between(0, SIDE_PX[1], 'px'),
  }),
})
export type PictureEntry = z.output<typeof pictureSchema>
/** As it is stored: the crop's bytes stand in a table of their own. */
export const storedPicture = pictureSchema.omit({ setupId: true, uSharedMm: true, crop: true }).extend({
  crop: pictureSchema.shape.crop.omit({ base64: true }),
})
export type StoredPicture = z.output<typeof storedPicture>
