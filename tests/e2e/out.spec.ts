/** Taken out: a list as a spreadsheet gets it, the archive of the shop, and what is refused. */
import { readFileSync } from 'node:fs'
import { Uint8ArrayReader, ZipReader } from '@zip.js/zip.js'
import { axe, expect, test } from './support'

test('a list and the archive come as files', async ({ page }) => {
  await page.goto('/stores')
  await page.getByRole('link', { name: 'Take it out' }).click()
  await expect(page.getByRole('heading', { name: 'Take it out' })).toBeVisible()
  await axe(page, 'taking out')
  const file = async (name: string) => {
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name }).click()])
    return { name: download.suggestedFilename(), bytes: readFileSync(await download.path()) }
  }
  const runs = await file('Runs as CSV')
  expect(runs.name).toBe('runs.csv')
  expect(runs.bytes.toString()).toMatch(/^\uFEFFprinter,ended,what,material,spool,nozzle,"printed, g"/)
  const nozzles = await file('Nozzles as JSON')
  expect(nozzles.name).toBe('nozzles.json')
  expect((JSON.parse(nozzles.bytes.toString()) as { tag: string }[]).map(n => n.tag)).toContain('N-014')
  const archive = await file('Download the archive')
  expect(archive.name).toMatch(/^iron-nozzle-\d{4}-\d\d-\d\d\.zip$/)
  const zip = new ZipReader(new Uint8ArrayReader(archive.bytes))
  expect((await zip.getEntries()).map(e => e.filename)).toContain('tables/runs.jsonl')
  await zip.close()
  await page.goto('/inspect/N-014')
  const own = await file('Gauges of N-014 as CSV')
  expect(own.name).toBe('gauges N-014.csv')
  const rows = own.bytes.toString().trim().split('\r\n').slice(1)
  expect(rows.length).toBeGreaterThan(0)
  for (const row of rows) expect(row).toMatch(/^N-014,/)
})

test('a list there is not, and one asked for as something else, are said', async ({ request }) => {
  const none = await request.get('/api/lists/everything')
  expect([none.status(), ((await none.json()) as { title: string }).title]).toEqual([404, 'This list is not known'])
  const odd = await request.get('/api/lists/runs?as=xlsx')
  expect(odd.status()).toBe(422)
  expect(await odd.text()).toContain('as is csv or json')
})
