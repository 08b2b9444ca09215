/** Decodes a picture and measures in it, in the background: it stays in here, so that it is decoded once. */
import { expose } from 'comlink'
import { measureBore, pinScale, stageScale, type Bore, type BoreQuestion, type Pixels, type Tone } from '#core/imaging'
import { CROP_BYTES } from '#shared/choices'

let pixels: Pixels | null = null

/** Upright as the camera held it, and its values as they are stored. */
async function open(file: Blob): Promise<{ width: number; height: number }> {
  const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image', colorSpaceConversion: 'none' })
  const { width, height } = bitmap
  const canvas = new OffscreenCanvas(width, height)
  const context = canvas.getContext('2d', { willReadFrequently: true })!
  context.drawImage(bitmap, 0, 0)
  bitmap.close()
  pixels = { width, height, rgba: context.getImageData(0, 0, width, height).data }
  return { width, height }
}

const opened = (): Pixels => {
  if (!pixels) throw new Error('no picture is open')
  return pixels
}

interface Point {
  x: number
  y: number
}

export interface Crop {
  base64: string
  umPerPx: number
  x: number
  y: number
}

/** Longest side of the crop, px, and how far it reaches beyond the mouth, in its radii. */
const CROP_PX = 420
const ROOM = 1.7

/** The mouth and what is about it, encoded anew: nothing of the file but the picture goes along. */
async function crop(bore: Bore, umPerPx: number): Promise<Crop> {
  const { rgba, width, height } = opened()
  const { x, y, a } = bore.ellipse
  const side = Math.ceil(2 * ROOM * a)
  const left = Math.round(x - side / 2)
  const top = Math.round(y - side / 2)
  const whole = new OffscreenCanvas(side, side)
  const from = whole.getContext('2d')!
  from.fillStyle = 'grey'
  from.fillRect(0, 0, side, side)
  const x0 = Math.max(0, left)
  const y0 = Math.max(0, top)
  const w = Math.min(width, left + side) - x0
  const h = Math.min(height, top + side) - y0
  const part = new ImageData(w, h)
  for (let row = 0; row < h; row++) {
    const at = 4 * ((y0 + row) * width + x0)
    part.data.set(rgba.subarray(at, at + 4 * w), 4 * row * w)
  }
  from.putImageData(part, x0 - left, y0 - top)
  for (let px = Math.min(CROP_PX, side); ; px = Math.round(px * 0.8)) {
    const small = new OffscreenCanvas(px, px)
    small.getContext('2d')!.drawImage(whole, 0, 0, px, px)
    const blob = await small.convertToBlob({ type: 'image/jpeg', quality: 0.85 })
    if (blob.size > CROP_BYTES && px > 100) continue
    const by = px / side
    return { base64: await base64Of(blob), umPerPx: umPerPx / by, x: (x - left) * by, y: (y - top) * by }
  }
}

async function base64Of(blob: Blob): Promise<string> {
  const bytes = new Uint8Array(await blob.arrayBuffer())
  let text = ''
  for (let i = 0; i < bytes.length; i += 0x8000) text += String.fromCharCode(...bytes.subarray(i, i + 0x8000))
  return btoa(text)
}

const api = {
  open,
  crop,
  measure: (q: BoreQuestion, progress: (share: number) => void) => measureBore(opened(), q, progress),
  stage: (everyMm: number, uEveryMm: number, tone: Tone) => stageScale(opened(), everyMm, uEveryMm, tone),
  pin: (a: Point, b: Point, pinMm: number, uPinMm: number, tone: Tone) => pinScale(opened(), a, b, pinMm, uPinMm, tone),
}
export type PictureWorker = typeof api
expose(api)
