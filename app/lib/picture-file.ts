/** Whether a file can be a picture, before a browser is asked to decode it. */
import { MOST_PIXELS } from '#core/imaging'

/** Larger files are no photograph of a nozzle. */
const MOST_BYTES = 60_000_000

/** Why a file is not taken, or null. What is told from its first bytes, not from its name. */
export async function pictureRefusal(file: Blob): Promise<string | null> {
  if (file.size === 0) return 'This file is empty (0 bytes). Take the picture again.'
  if (file.size > MOST_BYTES)
    return `This file has ${Math.round(file.size / 1e6)} MB; at most ${MOST_BYTES / 1e6} MB can be a picture here.`
  const head = new Uint8Array(await file.slice(0, 32).arrayBuffer())
  const text = String.fromCharCode(...head)
  if (/^.{4}ftyp(heic|heix|hevc|heim|heis|mif1|msf1)/s.test(text))
    return (
      'This is a HEIC picture, which browsers do not read. Set the phone’s camera to its most compatible format ' +
      '(JPEG), or save a copy as JPEG.'
    )
  return null
}

/** What went wrong while it was decoded, in words. */
export const undecoded = 'This is no picture that the browser can read. JPEG, PNG and WebP are read here.'
export const tooMany = `This picture has more than ${MOST_PIXELS / 1e6} million pixels; make it smaller.`
