/** A flow bench as it is used: planned, its file saved, weighed with the stand-in balance, ended, and what it tells. */
import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { Scan } from '../../core/gcode'
import { axe, expect, test } from './support'

const sheet = (page: Page) => page.getByRole('dialog')
async function plan(page: Page, temperatures: string, flows: string, repeats: string): Promise<void> {
  await sheet(page).getByLabel('Temperatures, °C').fill(temperatures)
  await sheet(page).getByLabel('Flows, mm³/s').fill(flows)
  await sheet(page).getByLabel('Blobs of each').fill(repeats)
}

test('from the nozzle to a verdict on the head: planned, weighed, struck and repeated, ended', async ({ page }) => {
  await page.goto('/inspect/N-017')
  await page.getByRole('link', { name: 'Bench its flow' }).click()
  await expect(sheet(page).getByLabel('Head and nozzle')).toHaveValue(/\d+/)
  await expect(sheet(page).getByText(/^\d+ blobs of .*: about \d+ min and/)).toBeVisible()
  await axe(page, 'plan a bench')
  // nonsense is answered at its field while it is typed, and again when it is sent
  await plan(page, '900', '8, x', '2')
  await sheet(page).getByRole('button', { name: 'Plan it' }).click()
  await expect(sheet(page).getByText(/^At most 550 °C$/)).toBeVisible()
  await expect(sheet(page).getByText('Enter a number').or(sheet(page).getByText('At least 3 flows'))).toBeVisible()
  await plan(page, '245; 400', '6 8 10 12', '1')
  await expect(sheet(page).getByText(/^400 °C is more than/)).toBeVisible()
  await plan(page, '245', '6 8 10 12', '1')
  await sheet(page).getByLabel('Balance reads to').fill('0,1')
  await sheet(page).getByRole('button', { name: 'Plan it' }).click()
  await expect(sheet(page).getByText(/half a percent is wanted\. Bench with it all the same\?/)).toBeVisible()
  await sheet(page).getByLabel('Balance reads to').fill('0,001')
  await sheet(page).getByRole('button', { name: 'Plan it' }).click()
  await expect(sheet(page)).toBeHidden()
  await expect(page.getByRole('heading', { name: /^N-017 on Nidd$/ })).toBeVisible()
  // the job file, as the printer gets it
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save the job file' }).click()
  const scan = new Scan({})
  scan.push(readFileSync(await (await download).path()))
  expect(scan.finish()).toMatchObject({ problems: [], totalExtrudedMm: 4040, maxSetpointC: { tools: { 0: 245 } } })
  // weighed in the cup of the stand-in
  const gross = page.getByLabel('Pan and blob, g')
  await page.getByRole('button', { name: 'Read the empty pan' }).click()
  await expect(page.getByLabel('Empty pan, read last, g')).toHaveValue(/^4\.3\d+$/)
  await gross.fill('4,1')
  await page.getByRole('button', { name: 'Save blob 1' }).click()
  await expect(page.getByText('Not heavier than the empty pan')).toBeVisible()
  for (let i = 1; i <= 4; i++) {
    await expect(page.getByText(new RegExp(`^Blob ${i} of 4: 245 °C, `))).toBeVisible()
    await page.getByRole('button', { name: 'Read the balance' }).click()
    await expect(gross).toHaveValue(/^\d\.\d+$/)
    await page.getByRole('button', { name: `Save blob ${i}` }).click()
    await expect(page.getByText(new RegExp(`^Blob ${i}: .* delivered\\.$`))).toBeVisible()
  }
  await expect(page.getByText(/^N-017 on Nidd sustains about \d/)).toBeVisible()
  await page.reload()
  await expect(page.getByText(/^N-017 on Nidd sustains about \d/)).toBeVisible()
  await axe(page, 'a bench')
  // a wrong one is struck and repeated
  await page.getByRole('button', { name: 'Strike out blob 2' }).click()
  await sheet(page).getByLabel('Reason').fill('dropped a piece')
  await sheet(page).getByRole('button', { name: 'Strike out' }).click()
  await expect(page.getByText(/^Blob 2 of 4: /)).toBeVisible()
  await page.getByRole('button', { name: 'Read the balance' }).click()
  await expect(gross).toHaveValue(/^\d\.\d+$/)
  await page.getByRole('button', { name: 'Save blob 2' }).click()
  await page.getByRole('button', { name: 'Log it as a run' }).click()
  await expect(page.getByText(/^The bench has ended: .* through N-017/)).toBeVisible()
  await expect(page.getByText('with what was primed')).toBeVisible()
  await page.goto('/inspect/N-017')
  await expect(page.getByText('Flow it sustains')).toBeVisible()
  await expect(page.getByRole('link', { name: /mm³\/s at 245 °C/ })).toBeVisible()
  await expect(page.getByText('Flow bench of N-017').first()).toBeVisible()
})

test('the demo’s two benches: grip at Wharfe; callipers asked where the level is off; a struck one says so', async ({
  page,
}) => {
  await page.goto('/inspect/bench?bench=1')
  await expect(page.getByText(/^Not melting: 20 °C hotter/)).toBeVisible()
  await page.setViewportSize({ width: 390, height: 800 })
  await axe(page, 'a bench on a phone')
  await page.getByRole('button', { name: 'Enter a length mark' }).click()
  await sheet(page).getByLabel('Went in, mm').fill('30')
  await sheet(page).getByRole('button', { name: 'Save it' }).click()
  await expect(sheet(page).getByText('Less than half or more than twice')).toBeVisible()
  await sheet(page).getByLabel('Went in, mm').fill('99,8')
  await sheet(page).getByRole('button', { name: 'Save it' }).click()
  await expect(page.getByText('told 100 mm, went in 99.8 mm')).toBeVisible()
})

test('what worked: a card from runs, written by hand, seen in Equip, a job file held against it', async ({ page }) => {
  await page.goto('/equip/materials')
  await page.getByLabel('Materials', { exact: true }).getByRole('link', { name: 'PA6-CF20' }).click()
  const worked = page.getByRole('region', { name: 'What worked' })
  const card = worked.getByRole('article').filter({ hasText: 'Ribble, hardened steel 0.4' })
  await expect(card.getByText(/^\d+ good runs, (\d+|none) failed/)).toBeVisible()
  await expect(card.getByText(/of its strength across the layers/)).toBeVisible()
  await axe(page, 'cards')
  await card.getByRole('button', { name: /^Edit/ }).click()
  await sheet(page).getByLabel('Bar broken across the layers, N').fill('')
  await sheet(page).getByLabel('Let down, °C/min').fill('900')
  await sheet(page).getByRole('button', { name: 'Save' }).click()
  await expect(sheet(page).getByText('At most 50 °C/min')).toBeVisible()
  await sheet(page).getByLabel('Let down, °C/min').fill('0,8')
  await sheet(page).getByRole('button', { name: 'Save' }).click()
  await expect(sheet(page).getByText('One alone tells nothing')).toBeVisible()
  await sheet(page).getByLabel('Bar broken across the layers, N').fill('305')
  await sheet(page).getByRole('button', { name: 'Save' }).click()
  await expect(card.getByText('50 % of its strength across the layers (305 N, 610 N along)')).toBeVisible()
  await expect(card.getByText('0.8 °C/min')).toBeVisible()
  await page.goto('/equip?printer=2&filament=9')
  await expect(page.getByText(/What worked here with a hardened steel 0\.4:/)).toBeVisible()
})
