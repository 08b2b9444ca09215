/**
 * Entries on their way: a fault of the server, a refusal corrected where it is, and one question answered in two tabs.
 */
import { randomBytes } from 'node:crypto'
import { chromium, type BrowserContext, type Page } from '@playwright/test'
import { WHOLE } from '../../scripts/lib/browser.mjs'
import { builtScripts, expect, test } from './support'

const GAUGES = '**/api/gauges'
/** The server is away for these entries; the answer ends it. */
async function away(context: BrowserContext, path: string): Promise<() => Promise<void>> {
  await context.route(path, route => route.abort('connectionrefused'))
  return () => context.unroute(path)
}
async function strip(page: Page, line: string, understood: RegExp): Promise<void> {
  await page.getByPlaceholder(/Scan a tag/).fill(line)
  await expect(page.getByRole('status').filter({ hasText: understood })).toBeVisible()
  await page.keyboard.press('Enter')
}
const gaugesOf = async (page: { request: BrowserContext['request'] }, tag: string) =>
  ((await (await page.request.get(`/api/nozzles/${tag}`)).json()) as { gaugePoints: { goMm: number | null }[] })
    .gaugePoints

test('a fault of the server: the entry is kept and sent again, and what comes after does not wait', async ({
  page,
  context,
}) => {
  let asked = 0
  await context.route(GAUGES, async route => {
    asked++
    if (asked > 2) return await route.continue()
    await route.fulfill({
      status: 500,
      contentType: 'application/problem+json',
      body: JSON.stringify({ type: 'about:blank', status: 500, title: 'The server failed' }),
    })
  })
  await page.goto('/inspect/N-034?gauge=1')
  await page.getByLabel('Goes, mm').fill('0.60')
  await page.getByLabel('Does not go, mm').fill('0.61')
  await page.getByLabel('Note').fill('through a fault')
  await page.getByRole('button', { name: 'Save the gauge' }).click()
  await expect(page.getByText('The server failed on it; it is kept here and sent again.').first()).toBeVisible()
  await strip(page, 'S-27 weighed 1200g', /S-27 .*weighs 1200 g/)
  await expect(page.getByRole('status').filter({ hasText: /S-27 .*: saved/ })).toBeVisible()
  await page.getByRole('button', { name: /1 waiting to be sent/ }).click()
  const sheet = page.getByRole('dialog')
  await expect(sheet.getByText(/the server failed on it \(1 try\); it is kept and sent again/)).toBeVisible()
  await sheet.getByRole('button', { name: 'Send again' }).click()
  await expect(sheet.getByText(/the server failed on it \(\d tr/)).toBeVisible()
  await sheet.getByRole('button', { name: 'Send again' }).click()
  await expect(sheet.getByText('All entries are saved on the server.')).toBeVisible()
  await page.goto('/inspect/N-034')
  await expect(page.getByText('through a fault')).toHaveCount(1)
})

test('a refused entry is corrected at the field that was refused, and sent', async ({ page, context }) => {
  const back = await away(context, '**/api/spool-events')
  await page.goto('/')
  await strip(page, 'S-27 weighed 50g', /S-27 weighs 50 g/)
  await expect(page.getByRole('button', { name: /1 waiting to be sent/ })).toBeVisible()
  await back()
  await page.getByRole('button', { name: /1 entry needs you/ }).click({ timeout: 45_000 })
  const sheet = page.getByRole('dialog')
  await expect(sheet.getByText(/Less than the empty spool/)).toBeVisible()
  await sheet.getByLabel('gross, g').fill('900')
  await sheet.getByRole('button', { name: 'Save and send' }).click()
  await expect(sheet.getByText('All entries are saved on the server.')).toBeVisible()
})

test('one question answered in two tabs at once is stored once', async ({ page, context }) => {
  const back = await away(context, GAUGES)
  await page.goto('/inspect/N-033?gauge=1')
  await page.getByLabel('Goes, mm').fill('0.49')
  await page.getByLabel('Does not go, mm').fill('0.50')
  await page.getByRole('button', { name: 'Save the gauge' }).click()
  await expect(page.getByRole('button', { name: /1 waiting to be sent/ })).toBeVisible()
  const before = (await gaugesOf(page, 'N-033')).length
  const other = await context.newPage()
  await other.goto('/')
  await back()
  for (const tab of [page, other]) {
    await tab.getByRole('button', { name: /1 entry needs you/ }).click({ timeout: 45_000 })
    await tab
      .getByRole('dialog')
      .getByLabel(/^It is as read/)
      .check()
  }
  const buttons = await Promise.all(
    [page, other].map(tab => tab.getByRole('dialog').getByRole('button', { name: 'Do that and save' }).elementHandle()),
  )
  await Promise.all(
    buttons.map(b =>
      b!.evaluate((button: HTMLElement) => {
        button.click()
      }),
    ),
  )
  for (const tab of [page, other])
    await expect(tab.getByRole('dialog').getByText('All entries are saved on the server.')).toBeVisible()
  const after = await gaugesOf(page, 'N-033')
  expect(after.length).toBe(before + 1)
  expect(after.filter(g => g.goMm === 0.49)).toHaveLength(1)
})

test('an edit sent twice under its key counts once and gets the first answer; without a key it is refused', async ({
  request,
}) => {
  const [printer] = (
    (await (await request.get('/api/shop')).json()) as {
      printers: { id: number; version: number; name: string; kind: string }[]
    }
  ).printers
  const edit = (headers: Record<string, string>) =>
    request.patch(`/api/edit/printers/${printer!.id}`, {
      data: { version: printer!.version, values: { name: printer!.name, kind: printer!.kind, note: 'edited once' } },
      headers,
    })
  const key = { 'idempotency-key': randomBytes(8).toString('hex') }
  const first = await edit(key)
  const again = await edit(key)
  expect([first.status(), again.status()]).toEqual([200, 200])
  expect(await again.json()).toEqual(await first.json())
  expect(again.headers()['idempotency-replayed']).toBe('true')
  const stale = await edit({ 'idempotency-key': randomBytes(8).toString('hex') })
  expect([stale.status(), ((await stale.json()) as { type: string }).type]).toEqual([409, 'urn:iron-nozzle:stale'])
  expect((await edit({})).status()).toBe(400)
})

test('five tabs of one browser are all served, and all hear of a save', async ({ page, context }) => {
  const tabs = [page]
  while (tabs.length < 5) tabs.push(await context.newPage())
  // a page with live readings in each: what a browser has for all of them is six connections
  for (const tab of tabs) {
    await tab.goto('/prepare/soak')
    await expect(tab.getByRole('button', { name: /all entries saved/ })).toBeVisible()
  }
  const last = tabs.at(-1)!
  await last.goto('/inspect/N-034')
  const gauges = last.getByRole('row', { name: / Gauge / })
  await expect(gauges.first()).toBeVisible()
  const before = await gauges.count()
  await strip(page, 'N-034 bore 0.60-0.61', /0\.6 goes/)
  await expect(gauges).toHaveCount(before + 1)
})

test('pages that the browser keeps for the way back hold no connection, and hear again', async ({
  page,
  baseURL,
  launchOptions,
}) => {
  // a browser that is driven keeps no page unless it is told to
  const browser = await chromium.launch({
    ...launchOptions,
    executablePath: WHOLE,
    ignoreDefaultArgs: ['--disable-back-forward-cache'],
  })
  const kept = await (await browser.newContext({ baseURL })).newPage()
  // more pages, one after the other by their addresses, than a browser has connections for a server
  for (const path of ['/', '/due', '/run', '/inspect', '/change', '/verify', '/stores', '/equip', '/inspect/N-034']) {
    await kept.goto(path, { timeout: 10_000 })
    await expect(kept.getByRole('button', { name: /all entries saved/ })).toBeVisible()
  }
  const gauges = kept.getByRole('row', { name: / Gauge / })
  await expect(gauges.first()).toBeVisible()
  const before = await gauges.count()
  await kept.evaluate(() => {
    document.body.dataset.kept = 'as it stood'
  })
  await kept.goto('/run')
  await page.goto('/')
  await strip(page, 'N-034 bore 0.60-0.61', /0\.6 goes/)
  await kept.goBack({ waitUntil: 'commit' }) // nothing is loaded again
  expect(await kept.evaluate(() => document.body.dataset.kept)).toBe('as it stood')
  await expect(gauges).toHaveCount(before + 1)
  await strip(page, 'N-034 bore 0.61-0.62', /0\.61 goes/)
  await expect(gauges).toHaveCount(before + 2)
  await browser.close()
})

test('what opens over a screen comes also where the server was away when it was asked for', async ({ page }) => {
  const [file] = [...builtScripts()].find(([, text]) => text.includes('Entries on their way'))!
  await page.route(`**/${file}`, route => route.abort('connectionrefused'))
  const failed = page.waitForEvent('requestfailed')
  await page.goto('/')
  await failed
  await page.getByRole('button', { name: /all entries saved/ }).click()
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await page.unroute(`**/${file}`)
  await expect(page.getByRole('dialog', { name: 'Entries on their way' })).toBeVisible()
})
