import { readdirSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import AxeBuilder from '@axe-core/playwright'
import { expect, test as base, type Page } from '@playwright/test'
import postgres from 'postgres'

export const SERVERS_FILE = join(tmpdir(), 'iron-nozzle-e2e.json')
/** Specs run side by side, each worker on shops of its own; within a spec one after the other. */
export const WORKERS = 2
/** Specs that change so much that they have a copy of the demo to themselves, which they serve. */
export const OWN_DATABASE = [
  'again',
  'api',
  'chambers',
  'change',
  'check',
  'clog',
  'due',
  'first',
  'fuzz',
  'level',
  'paper',
  'picture',
  'stores',
  'study',
  'two',
  'upkeep',
  'verify',
  'wrong',
] as const
/** Of those, shops with nothing in them. */
const EMPTY: readonly (typeof OWN_DATABASE)[number][] = ['first']
interface Served {
  port: number
  url: string
}
export interface ServersFile {
  workers: { demo: Served; shop: Served }[]
  /** Where databases are made, and of what. */
  maker: string
  template: string
}
const written = () => JSON.parse(readFileSync(SERVERS_FILE, 'utf8')) as ServersFile
/** The shops of this worker. */
export const servers = () => written().workers[Number(process.env.TEST_PARALLEL_INDEX)]!

/** The address of a spec's own database, made anew: a second try begins where the first did, and not where it fell. */
export async function ownDatabase(spec: (typeof OWN_DATABASE)[number]): Promise<string> {
  const { maker, template } = written()
  const name = `e2e_${spec}`
  const sql = postgres(maker, { max: 1, onnotice: () => {} })
  await sql.unsafe(`drop database if exists ${name} with (force)`)
  await sql.unsafe(`create database ${name}${EMPTY.includes(spec) ? '' : ` template ${template}`}`)
  await sql.end()
  const url = new URL(maker)
  url.pathname = `/${name}`
  return url.href
}

/** The scripts of the built application: their folder, and the text of each by its name. */
export const BUILT = join(import.meta.dirname, '../../.output/public/_nuxt')
export const builtScripts = () =>
  new Map(
    readdirSync(BUILT)
      .filter(f => f.endsWith('.js'))
      .map(f => [f, readFileSync(join(BUILT, f), 'utf8')]),
  )

/** A page on the demo shop (or the empty one, with `shop: true`) that fails the test on any error in the browser. */
export const test = base.extend<{ shop: boolean; errors: string[] }>({
  shop: [false, { option: true }],
  baseURL: async ({ shop }, use) => {
    await use(`http://127.0.0.1:${shop ? servers().shop.port : servers().demo.port}`)
  },
  page: async ({ page }, use) => {
    // a sheet that has closed takes its step in the history back some ms later, which calls off a page asked for
    // meanwhile: quicker than any person, so the test waits for it
    const settled = () =>
      page.waitForFunction(
        () =>
          document.querySelector('[role=dialog]') !== null ||
          (history.state as { sheet?: string } | null)?.sheet === undefined,
      )
    const { goto, reload } = page
    page.goto = async (...args) => {
      await settled()
      return goto.apply(page, args)
    }
    page.reload = async (...args) => {
      await settled()
      return reload.apply(page, args)
    }
    await use(page)
  },
  errors: [
    async ({ page }, use) => {
      const errors: string[] = []
      page.on('pageerror', e => errors.push(e.message))
      page.on('console', m => {
        if (m.type() === 'error' && !/Failed to load resource|net::ERR/.test(m.text())) errors.push(m.text())
      })
      await use(errors)
      expect(errors, 'errors in the browser').toEqual([])
    },
    { auto: true },
  ],
})
export { expect }

export async function axe(page: Page, what: string): Promise<void> {
  // a page that is still coming has nothing on it; under a sheet it is there and has no role
  await page.locator('main').waitFor()
  const values = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice']
  // no frames here, and what passes is not listed: a quarter of the time
  const { violations } = await new AxeBuilder({ page })
    .setLegacyMode()
    .options({ runOnly: { type: 'tag', values }, resultTypes: ['violations'] })
    .analyze()
  expect(
    violations.map(
      v =>
        `${what}: ${v.id}: ${v.nodes
          .map(n => n.target.join(' '))
          .slice(0, 3)
          .join(' | ')}`,
    ),
  ).toEqual([])
}

/** Nothing is wider than the screen: the page does not scroll sideways. */
export async function fitsAcross(page: Page): Promise<void> {
  const whole = await page.evaluate(() => document.documentElement.scrollWidth)
  const { width } = page.viewportSize()!
  expect(whole, `${page.url()} at ${width} px`).toBeLessThanOrEqual(width)
}

/** A small print: `layers` layers of one line each, with the setpoints given. */
export function jobFile(more: { layers?: number; perLayer?: number; nozzleC?: number; tools?: number } = {}): Buffer {
  const { layers = 100, perLayer = 50, nozzleC = 280, tools = 1 } = more
  const lines = ['M83', `M104 S${nozzleC}`, 'M140 S100', 'G1 F1200']
  for (let l = 0; l < layers; l++) {
    lines.push(`G1 Z${((l + 1) * 0.2).toFixed(1)}`)
    for (let t = 0; t < tools; t++) lines.push(...(tools > 1 ? [`T${t}`] : []), `G1 X${(l % 2) * 50} E${perLayer}`)
  }
  return Buffer.from(lines.join('\n') + '\n')
}
