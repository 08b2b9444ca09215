/** Reading pictures on the command line. */
import { readFile } from 'node:fs/promises'
import { PNG } from 'pngjs'
import type { Pixels } from '#core/imaging'
import { fail } from './command'

/** The pixels of a PNG file. */
export async function picture(file: string): Promise<Pixels> {
  const bytes = await readFile(file).catch(() => fail(`${file}: no such file`))
  try {
    const { width, height, data } = PNG.sync.read(bytes)
    return { width, height, rgba: data }
  } catch {
    fail(`${file}: not a PNG picture`)
  }
}
