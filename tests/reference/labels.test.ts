/**
 * Codes of labels, drawn as a label printer of 203 dots per inch prints them (8 dots a mm), read by another library
 * (jsqr) than made them; and the sizes of paper and of codes against their standards (ISO 216; ISO/IEC 18004:2015, a
 * code of version v has 17 + 4·v modules, from memory).
 */
import jsQR from 'jsqr'
import { expect, test } from 'vitest'
import { A4, LABEL_SIZES, labelFace, LEAST_MODULE_MM, moduleMm, QUIET_MODULES, type LabelSize } from '#core/labels'
import { codeOf, tagOfCode } from '#shared/labels'
import { codeFor, type Code } from '../../app/lib/code'

const DOTS_PER_MM = 8

/** The label's code in dots, black on white, at its place. */
function printed(size: LabelSize, code: Code): { data: Uint8ClampedArray; w: number; h: number } {
  const w = Math.round(size.widthMm * DOTS_PER_MM)
  const h = Math.round(size.heightMm * DOTS_PER_MM)
  const data = new Uint8ClampedArray(4 * w * h).fill(255)
  const { code: box } = labelFace(size)
  const dark = new Set([...code.path.matchAll(/M(\d+) (\d+)h1/g)].map(m => `${m[1]} ${m[2]}`))
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const module = (at: number, from: number) =>
        Math.floor((((at + 0.5) / DOTS_PER_MM - from) / box.widthMm) * code.side)
      if (dark.has(`${module(x, box.xMm)} ${module(y, box.yMm)}`)) data.fill(0, 4 * (y * w + x), 4 * (y * w + x) + 3)
    }
  return { data, w, h }
}

test.each(LABEL_SIZES.flatMap(s => ['', 'http://192.168.120.20:3000'].map(a => [s, a] as const)))(
  'a label of %o with the address "%s" is read back',
  (size, address) => {
    for (const tag of ['N-014', 'S-07', 'Ribble', 'H-12', 'P-42']) {
      const code = codeFor(codeOf(address, tag))
      expect(moduleMm(size, code.modules)).toBeGreaterThanOrEqual(LEAST_MODULE_MM)
      const { data, w, h } = printed(size, code)
      const read = jsQR(data, w, h)
      expect(read && tagOfCode(read.data)).toBe(tag)
    }
  },
)

test('a code has 17 + 4·version modules, and a quiet zone of four around it', () => {
  // numbers of bytes that version 1, 2, 3 and 4 hold at level M: 14, 26, 42, 62 (ISO/IEC 18004, table 7, from memory)
  for (const [bytes, version] of [
    [14, 1],
    [15, 2],
    [26, 2],
    [27, 3],
    [42, 3],
    [62, 4],
  ] as const) {
    const { modules, side } = codeFor('a'.repeat(bytes))
    expect(modules).toBe(17 + 4 * version)
    expect(side).toBe(modules + 2 * QUIET_MODULES)
  }
})

test('A4 is 210 × 297 mm', () => expect([A4.widthMm, A4.heightMm]).toEqual([210, 297]))
