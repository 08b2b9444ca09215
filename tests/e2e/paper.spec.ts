/**
 * What is pinned to a wall: eight documents on A4 and Letter, upright and across, read back from their PDF. On every
 * page all words lie inside its margins, none over another, none too small to read; the frame of the screen is gone.
 */
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'
import type { Page } from '@playwright/test'
import { WHOLE } from '../../scripts/lib/browser.mjs'
import { onOwnDemo } from './own-demo'
import { expect } from './support'

// the shop as it was loaded: what other specs log there is not on these papers
const test = onOwnDemo('paper')
// what a person prints with
test.use({ launchOptions: async ({ launchOptions }, use) => use({ ...launchOptions, executablePath: WHOLE }) })

/** Points: PDF's own unit. */
const PT_PER_MM = 72 / 25.4
const MARGIN_MM = 12
/** ISO 216 and ANSI/ASME Y14.1, in points. */
const PAPER = { A4: [595.3, 841.9], Letter: [612, 792] } as const
/** Smaller than this nobody reads on a wall; common practice, no source. */
const LEAST_PT = 7

interface Word {
  text: string
  page: number
  left: number
  right: number
  bottom: number
  size: number
}
async function read(pdf: Buffer): Promise<{ pages: [number, number][]; words: Word[] }> {
  const doc = await getDocument({ data: new Uint8Array(pdf), verbosity: 0 }).promise
  const pages: [number, number][] = []
  const words: Word[] = []
  for (let page = 1; page <= doc.numPages; page++) {
    const p = await doc.getPage(page)
    pages.push([p.view[2]!, p.view[3]!])
    for (const item of (await p.getTextContent()).items) {
      if (!('str' in item) || item.str.trim() === '') continue
      const [a, b, c, d, left, bottom] = item.transform as [number, number, number, number, number, number]
      // words along an axis of a drawing stand upright
      const [wide, size] = [Math.hypot(a, b), Math.hypot(c, d)]
      const right = left + (Math.abs(b) > Math.abs(a) ? size : item.width)
      words.push({ text: item.str, page, left, right, bottom, size: Math.min(wide, size) || size })
    }
  }
  return { pages, words }
}
/** Two words that share more than a third of the smaller one's box. */
function over(words: readonly Word[]): string[] {
  const out: string[] = []
  for (const [i, a] of words.entries())
    for (const b of words.slice(i + 1)) {
      // a word with a rim is drawn twice
      const isRim = a.text === b.text && Math.abs(a.left - b.left) < 0.5 && Math.abs(a.bottom - b.bottom) < 0.5
      if (a.page !== b.page || isRim) continue
      const wide = Math.min(a.right, b.right) - Math.max(a.left, b.left)
      // a letter without what hangs below the line is some seven tenths of its size
      const high = Math.min(a.bottom + 0.7 * a.size, b.bottom + 0.7 * b.size) - Math.max(a.bottom, b.bottom)
      const least = Math.min((a.right - a.left) * 0.7 * a.size, (b.right - b.left) * 0.7 * b.size)
      if (wide > 0 && high > 0 && wide * high > least / 3) out.push(`“${a.text}” over “${b.text}”`)
    }
  return out
}

async function checkIn(page: Page): Promise<string> {
  await page.goto('/prepare/check?printer=Ribble')
  await page.selectOption('#check-job', { index: 1 })
  await page.getByRole('button', { name: /^Store/ }).click()
  await expect(page).toHaveURL(/check\/\d+$/)
  return new URL(page.url()).pathname
}
/** The one the demo has: what is shown unasked is the latest, which another test may have begun. */
async function demoBench(page: Page): Promise<string> {
  await page.goto('/inspect/bench')
  const benches = (await (await page.request.get('/api/benches')).json()) as { id: number }[]
  return `/inspect/bench?bench=${Math.min(...benches.map(b => b.id))}`
}
/** Twice as many printers as the demo has: more than a page is wide. */
async function twiceTheFleet(page: Page): Promise<string> {
  await page.route('**/api/equip', async route => {
    const response = await route.fetch()
    const equip = (await response.json()) as { printers: { id: number; name: string }[] }
    const more = equip.printers.map(p => ({ ...p, id: p.id + 1000, name: `${p.name} 2` }))
    await route.fulfill({ response, json: { ...equip, printers: [...equip.printers, ...more] } })
  })
  return '/equip/fleet'
}
const DOCUMENTS: [string, string | ((page: Page) => Promise<string>), string[]][] = [
  ['nozzle card', '/inspect/N-014', ['N-014', 'hardened steel', 'fibre left', 'Through it so far', 'Ribble']],
  ['printer card', '/equip/stack/5', ['Swale', 'firmware ceiling', 'type K thermocouple', 'Parts']],
  ['certificate', '/verify/certificate?printer=Swale', ['Swale', 'May be set to', 'Signed', 'Stack']],
  ['May I start', checkIn, ['Ribble', 'First layer', 'Part fan', 'Checked']],
  ['fleet matrix', '/equip/fleet', ['Calder', 'Lune', 'ABS', 'soluble support', 'after changes']],
  ['large fleet', twiceTheFleet, ['Calder', 'Lune 2', 'ABS', 'soluble support']],
  ['study', '/inspect/study', ['Pins, two of us', 'Repeatability', 'N-012']],
  ['bench', demoBench, ['blob', 'delivered', '285']],
  ['morning list', '/', ['Next at the bench', 'Gauge it after this job', 'Lune', 'nozzle', '°C']],
]
for (const [name, where, says] of DOCUMENTS)
  test(`${name}: A4 and Letter, upright and across`, async ({ page }) => {
    await page.goto(typeof where === 'string' ? where : await where(page))
    await expect(page.getByRole('navigation', { name: 'Stations' })).toBeVisible()
    await expect(page.getByRole('main')).toContainText(says[0]!)
    await page.waitForLoadState('networkidle')
    const mm = `${MARGIN_MM}mm`
    const margin = { top: mm, bottom: mm, left: mm, right: mm }
    for (const format of ['A4', 'Letter'] as const)
      for (const landscape of [false, true]) {
        const id = `${name}, ${format} ${landscape ? 'across' : 'upright'}`
        const { pages, words } = await read(await page.pdf({ format, landscape, margin }))
        const [short, long] = PAPER[format]
        for (const [wide, high] of pages) {
          expect.soft(Math.abs(wide - (landscape ? long : short)), id).toBeLessThan(1.5)
          expect.soft(Math.abs(high - (landscape ? short : long)), id).toBeLessThan(1.5)
        }
        const edge = MARGIN_MM * PT_PER_MM
        const outside = words.filter(
          w => w.left < edge - 1 || w.right > pages[w.page - 1]![0] - edge + 2 || w.bottom < edge - 2,
        )
        expect
          .soft(
            outside.map(w => w.text),
            `${id}: outside the margins`,
          )
          .toEqual([])
        expect
          .soft(
            words.filter(w => w.size < LEAST_PT).map(w => `${w.text} ${w.size}`),
            `${id}: too small`,
          )
          .toEqual([])
        expect.soft(over(words), `${id}: one over another`).toEqual([])
        // how a PDF cuts words into pieces is its own affair
        const text = words
          .map(w => w.text)
          .join('')
          .replace(/\s/g, '')
        for (const word of says) expect.soft(text, id).toContain(word.replace(/\s/g, ''))
        expect.soft(text, id).not.toMatch(/allentriessaved|Scanatag/)
        // each page is worth its paper, and one says whose it is and of when
        for (let i = 1; i <= pages.length; i++)
          expect.soft(words.filter(w => w.page === i).length, `${id}: page ${i}`).toBeGreaterThan(1)
        expect.soft(text, id).toMatch(/(?:,printed|Made|PrintShop·)(?:\w{3})?\d{1,2}\w{3}/)
      }
  })
