/** Where an address leads, and that what is drawn there is seen whole. */
import { axe, expect, test } from './support'

test('an unknown address is a page of the app, and offers what may have been meant', async ({ page }) => {
  await page.goto('/nowhere/N-014')
  await expect(page.getByRole('heading', { name: 'There is no page at /nowhere/N-014' })).toBeVisible()
  await axe(page, 'no such page')
  await page.getByRole('link', { name: /^Open N-014: hardened steel 0\.4/ }).click()
  await expect(page).toHaveURL(/\/inspect\/N-014$/)
  await page.goto('/nowhere/nothing')
  await page.getByRole('navigation', { name: 'Where to go on' }).getByRole('link', { name: 'Verify' }).click()
  await expect(page).toHaveURL(/\/verify$/)
})

test('the bars of Inspect lie within their column at the width of a tablet', async ({ page }) => {
  await page.setViewportSize({ width: 820, height: 1180 })
  await page.goto('/inspect')
  const bars = page.getByRole('list', { name: 'Nozzles' }).getByRole('img', { name: /^fibre left on/ })
  await expect(bars.first()).toBeVisible()
  const cut = await bars.evaluateAll(
    all =>
      all.filter(svg => {
        const column = svg.parentElement!.getBoundingClientRect()
        const marks = [...svg.querySelectorAll('rect, path')].map(m => m.getBoundingClientRect().right)
        return Math.max(...marks) > Math.min(column.right, svg.getBoundingClientRect().right) + 1
      }).length,
  )
  expect(cut).toBe(0)
})

test('what is chosen lives in the address: Back and a reload keep it', async ({ page }) => {
  await page.goto('/stores')
  await page.getByRole('tab', { name: 'Spools' }).click()
  await expect(page).toHaveURL(/\/stores\?tab=Spools$/)
  await page.reload()
  await expect(page.getByRole('button', { name: 'Add a spool' })).toBeVisible()
  // a sheet that is opened right after takes its step in the history back: the shelf stays
  await page.getByRole('tab', { name: 'Nozzle types' }).click()
  await page.getByRole('button', { name: 'Add a nozzle type' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Cancel' }).click()
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await expect(page).toHaveURL(/\/stores\?tab=Nozzle\+types$/)
  await expect(page.getByRole('button', { name: 'Add a nozzle type' })).toBeVisible()
  await page.goto('/inspect')
  await page.getByLabel('Find', { exact: true }).fill('brass')
  await page.getByRole('checkbox', { name: 'retired too' }).check()
  await expect(page).toHaveURL(/[?&]find=brass(&|$)/)
  await expect(page).toHaveURL(/[?&]retired=1(&|$)/)
  await page
    .getByRole('link', { name: /^N-001/ })
    .first()
    .click()
  await expect(page).toHaveURL(/\/inspect\/N-001$/)
  await page.goBack()
  await expect(page.getByLabel('Find', { exact: true })).toHaveValue('brass')
  await expect(page.getByRole('checkbox', { name: 'retired too' })).toBeChecked()
  await expect(page.getByRole('link', { name: /^N-001/ }).first()).toBeVisible()
  // an address that says nothing it knows is the page as it begins
  await page.goto('/stores?tab=Cellar')
  await expect(page.getByRole('button', { name: 'Add a nozzle' })).toBeVisible()
})
