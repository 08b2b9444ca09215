/** A clog cleared step by step, from the nozzle's page to ready. */
import { said, tick, tickTheRest } from './change-steps'
import { onOwnDemo } from './own-demo'
import { axe, expect } from './support'

const test = onOwnDemo('clog')
test('a clog: from its nozzle, by a needle and a pull that fit it, and by what cleared it', async ({ page }) => {
  test.setTimeout(120_000)
  await page.goto('/inspect/N-022')
  await page.getByRole('link', { name: 'Clear a clog' }).click()
  await expect(page).toHaveURL(/\/change\/clog\?head=\d+$/)
  await expect(said(page, /^N-022: at \d+ °C feed by hand, then a needle of 0\.55 mm, then a cold pull/)).toBeVisible()
  await expect(page.getByText('Advised against')).toBeVisible()
  await axe(page, 'clear a clog')
  await page.getByRole('button', { name: 'Begin to clear it' }).click()
  await expect(said(page, /^Wharfe is not ready\. Clog on Wharfe.*: N-022: 0 of 8 steps done/)).toBeVisible()
  await tick(page, /^Raise Z/)
  await tick(page, /^Eye protection/)
  await tickTheRest(page, { shows: 'nothing', needle: 'no change', pull: 'runs', pulledC: 130, clearedBy: 'cold pull' })
  await page.reload()
  await expect(page.getByText('It runs again by: the cold pull')).toBeVisible()
  await page.getByRole('button', { name: 'Wharfe is ready' }).click()
  await expect(page.getByText(/^Wharfe is ready: what cleared it and what runs from it now/)).toBeVisible()
  // no plated nozzle is burnt out
  await page.goto('/inspect/N-017')
  await page.getByRole('link', { name: 'Clear a clog' }).click()
  await expect(page.getByText(/^Never burn it out with a torch: its plating goes/)).toBeVisible()
})
