/** A picture made small enough to be kept with an entry: JPEG, the longer side at most `MOST_PX`. */
import { CROP_BYTES } from '#shared/choices'

const MOST_PX = 1280
/** Tried from the best to the smallest. */
const QUALITIES = [0.8, 0.6, 0.4, 0.25]

/** Its bytes in base64; throws an error in words for what is no picture. */
export async function shrunk(file: Blob): Promise<string> {
  const picture = await createImageBitmap(file).catch(() => {
    throw new Error('This is no picture that the browser can read')
  })
  const share = Math.min(1, MOST_PX / Math.max(picture.width, picture.height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.max(1, Math.round(picture.width * share))
  canvas.height = Math.max(1, Math.round(picture.height * share))
  canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height)
  picture.close()
  for (const quality of QUALITIES) {
    const [, base64 = ''] = canvas.toDataURL('image/jpeg', quality).split(',')
    if (base64.length * 0.75 <= CROP_BYTES) return base64
  }
  throw new Error('This picture stays too large: take it from nearer by')
}
