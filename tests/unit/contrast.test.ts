/** Every colour pair the app uses, held to WCAG 2.2: 4.5:1 for text, 3:1 for lines and shapes that carry meaning. */
import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, test } from 'vitest'

const css = readFileSync(new URL('../../app/assets/app.css', import.meta.url), 'utf8')
const token = Object.fromEntries([...css.matchAll(/--color-([\w-]+): (#[0-9a-f]{6});/g)].map(m => [m[1]!, m[2]!]))

/** Relative luminance and contrast. Source: WCAG 2.2, definitions. */
function luminance(c: string): number {
  const [r, g, b] = [1, 3, 5]
    .map(i => parseInt(c.slice(i, i + 2), 16) / 255)
    .map(v => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4)) as [number, number, number]
  return 0.2126 * r + 0.7152 * g + 0.0722 * b
}
function contrast(a: string, b: string): number {
  const [x, y] = [luminance(a), luminance(b)].sort((p, q) => q - p) as [number, number]
  return (x + 0.05) / (y + 0.05)
}

test('the formula gives the values that the standard names', () => {
  expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 5)
  expect(contrast('#777777', '#ffffff')).toBeCloseTo(4.48, 2)
})

const grounds = ['paper', 'sheet', 'white']
test.each(['ink', 'ink2', 'stop', 'look', 'bronze', 'plum', 'blue'].flatMap(t => grounds.map(g => [t, g] as const)))(
  'text %s on %s',
  (text, ground) => {
    expect(contrast(token[text]!, token[ground]!)).toBeGreaterThanOrEqual(4.5)
  },
)
test.each(['ink', 'stop', 'bronze', 'ink2'])('white text on %s', ground =>
  expect(contrast(token.white!, token[ground]!)).toBeGreaterThanOrEqual(4.5),
)
test('text on the faint hover ground', () => expect(contrast(token.ink!, token.faint!)).toBeGreaterThanOrEqual(4.5))
test.each(['ink', 'ink2', 'stop', 'look', 'blue', 'bronze', 'slate'].flatMap(t => grounds.map(g => [t, g] as const)))(
  'line %s on %s',
  (line, ground) => {
    expect(contrast(token[line]!, token[ground]!)).toBeGreaterThanOrEqual(3)
  },
)
test.each(['photo-edge', 'photo-out', 'photo-focus', 'sheet'])('on a photograph: %s over its casing of ink', line => {
  expect(contrast(token[line]!, token.ink!)).toBeGreaterThanOrEqual(3)
})
test('fills under 3:1 (oxide colours, straw bands) are drawn inside an outline that is over it', () => {
  // without white space, so that how the source is laid out does not matter
  const drawing = (f: string) =>
    readFileSync(new URL(`../../app/components/${f}`, import.meta.url), 'utf8').replace(/\s+/g, '')
  expect(drawing('floor/PrinterColumn.vue')).toMatch(/:fill="temper\(l\.asked\)"stroke="var\(--color-ink\)"/)
  expect(drawing('ui/LifeBar.vue')).toMatch(/fill="var\(--color-straw\)"[^>]*stroke="var\(--color-bronze\)"/)
  expect(drawing('inspect/WearChart.vue')).toMatch(/style:\{fill:STRAW,opacity:1,fillOpacity:opacity,stroke:BRONZE/)
})

describe('rules of the look', () => {
  const files = readdirSync(new URL('../../app', import.meta.url), { recursive: true, encoding: 'utf8' })
    .filter(f => /\.(vue|css|ts)$/.test(f))
    .map(f => [f, readFileSync(new URL(`../../app/${f}`, import.meta.url), 'utf8')] as const)
  test('no shadows anywhere', () => {
    for (const [f, text] of files) expect(/box-shadow|drop-shadow|\bshadow-(?!none)/.test(text), f).toBe(false)
  })
  test('no text under 12 px', () => {
    for (const [f, text] of files)
      for (const m of text.matchAll(/(?:font-size:\s*|text-\[|fontSize:\s*)(\d+(?:\.\d+)?)(?:px)?/g))
        expect(Number(m[1]), `${f}: ${m[0]}`).toBeGreaterThanOrEqual(12)
  })
  test('colours in drawings are the tokens', () => {
    const known = new Set([...Object.values(token), '#fff', '#ffffff'])
    for (const [f, text] of files)
      for (const m of text.matchAll(/#[0-9a-f]{6}\b|#[0-9a-f]{3}\b/gi))
        expect(known.has(m[0].toLowerCase()), `${f}: ${m[0]}`).toBe(true)
  })
})
