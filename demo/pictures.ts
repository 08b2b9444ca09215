/**
 * The demo's picture gauges: two set-ups with their scales, and pictures drawn and measured as the page does it, by the
 * core itself. Nothing here is typed in: every bore comes out of its picture.
 */
import { measureBore, stageScale, type Bore, type Scale, type StageScale } from '#core/imaging'
import { scaleSchema, setupFields } from '#shared/entries/pictures'
import { pictureGauge, shapesSeen } from '#shared/picture-entry'
import type { Connection } from '../server/db/client'
import { addSetup, saveScale } from '../server/records/pictures/setups'
import { pngOf, stageUnderMicroscope, underMicroscope } from '../sim/microscope'
import { drawMouth, type Drawn } from '../sim/mouth-picture'

/** Picture gauges in the demo. */
export const DEMO_PICTURES = 12
const EVERY_MM = 0.02

export interface DemoSetups {
  microscopeId: number
  scale: Scale
}

/** The bench microscope, read twice from its stage scale, and a phone whose scale is due again. */
export async function addSetups(
  tx: Connection,
  { read, again, phone, lead }: { read: string; again: string; phone: string; lead: number },
): Promise<DemoSetups> {
  const microscope = await addSetup(
    tx,
    setupFields.parse({
      name: 'Bench microscope, lens 2',
      tone: 'srgb',
      note: 'ring light, stand at the lowest click',
    }),
    lead,
  )
  const held = await addSetup(
    tx,
    setupFields.parse({
      name: 'Phone with a macro lens',
      focusesItself: true,
      dueDays: 90,
      note: 'for pictures on the head',
    }),
    lead,
  )
  const found = stageScale(stageUnderMicroscope(EVERY_MM, 3), EVERY_MM, 0, 'srgb') as StageScale
  const save = (setupId: number, s: Scale, how: string, knownMm: number, occurredAt: string) =>
    saveScale(
      tx,
      scaleSchema.parse({ setupId, how, knownMm, umPerPx: s.umPerPx, uUmPerPx: s.uUmPerPx, occurredAt }),
      lead,
    )
  const { umPerPx, uUmPerPx } = found
  await save(microscope.id, { umPerPx: umPerPx * 1.0008, uUmPerPx }, 'stage scale', EVERY_MM, read)
  await save(microscope.id, { umPerPx, uUmPerPx }, 'stage scale', EVERY_MM, again)
  await save(held.id, { umPerPx: 4.6, uUmPerPx: 0.04 }, 'two points', 1, phone)
  return { microscopeId: microscope.id, scale: { umPerPx, uUmPerPx } }
}

/** A nozzle of that bore under the demo's microscope, as an entry; null when its picture shows no mouth. */
export function pictureOfBore(setups: DemoSetups, boreMm: number, nominalMm: number, seed: number) {
  const drawn = drawMouth(underMicroscope(boreMm, nominalMm, seed))
  const { scale } = setups
  const bore = measureBore(drawn, { ...scale, tone: 'srgb', isToneStated: true })
  if ('refused' in bore) return null
  const crop = cropOf(drawn, bore, scale.umPerPx)
  return {
    ...pictureGauge({ bore, scale, setupId: setups.microscopeId, isOwnScale: false, isInPlace: false, crop }),
    shape: shapesSeen(bore),
  }
}

/** Longest side of a crop, px: a PNG of noise does not get smaller than its pixels. */
const CROP_PX = 240

/** The mouth and what is about it, as a PNG. */
function cropOf(p: Drawn, bore: Bore, umPerPx: number) {
  const { x, y, a } = bore.ellipse
  const by = Math.ceil((3.4 * a) / CROP_PX)
  const side = Math.ceil((3.4 * a) / by)
  const [left, top] = [Math.round(x - (side * by) / 2), Math.round(y - (side * by) / 2)]
  const rgba = new Uint8ClampedArray(4 * side * side).fill(255)
  const at = (px: number, py: number, c: number) =>
    px < 0 || py < 0 || px >= p.width || py >= p.height ? 128 : p.rgba[4 * (py * p.width + px) + c]!
  for (let row = 0; row < side; row++)
    for (let col = 0; col < side; col++)
      for (let c = 0; c < 3; c++) {
        let sum = 0
        for (let k = 0; k < by * by; k++) sum += at(left + col * by + (k % by), top + row * by + Math.floor(k / by), c)
        rgba[4 * (row * side + col) + c] = sum / (by * by)
      }
  const base64 = pngOf({ width: side, height: side, rgba }).toString('base64')
  const half = (by - 1) / 2
  return { base64, umPerPx: umPerPx * by, x: (x - left - half) / by, y: (y - top - half) / by }
}
