/** Codes of labels read from a picture, here in the browser: nothing of it is sent anywhere. */
import { tagOfCode } from '#shared/labels'

/** A photo is looked at no larger than this: codes are found faster, and as well. */
const MOST_PX = 1400

/** The tag that a picture's code says; null when there is none in it. */
export async function tagIn(source: ImageBitmapSource): Promise<string | null> {
  const { default: jsQR } = await import('jsqr')
  const bitmap = await createImageBitmap(source)
  const scale = Math.min(1, MOST_PX / Math.max(bitmap.width, bitmap.height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.max(1, Math.round(bitmap.width * scale))
  canvas.height = Math.max(1, Math.round(bitmap.height * scale))
  const context = canvas.getContext('2d', { willReadFrequently: true })!
  context.drawImage(bitmap, 0, 0, canvas.width, canvas.height)
  bitmap.close()
  const { data, width, height } = context.getImageData(0, 0, canvas.width, canvas.height)
  const found = jsQR(data, width, height)
  return found && found.data.trim() !== '' ? tagOfCode(found.data) : null
}

/** Whether this page may look through the camera all the time: browsers allow it where the page is secure. */
export const canLook = () => window.isSecureContext && navigator.mediaDevices !== undefined
