/**
 * What the later stations say in a shop with nothing in it. Begun before shop.spec, which sets the empty shop of its
 * worker up.
 */
import { expect, test } from './support'

test.use({ shop: true })

test('study and types say what to do first, and nonsense is answered at the sheet', async ({ page }) => {
  await page.goto('/inspect/types')
  await expect(page.getByText(/No nozzle yet/)).toBeVisible()
  await page.goto('/inspect/study')
  await expect(page.getByText(/No gauge study yet/)).toBeVisible()
  await page.getByRole('button', { name: 'Begin a study' }).click()
  const sheet = page.getByRole('dialog')
  await sheet.getByLabel('Rounds').fill('99')
  await sheet.getByRole('button', { name: 'Draw the list' }).click()
  await expect(sheet.getByText('Enter a name')).toBeVisible()
  await expect(sheet.getByText('At least 2 nozzles')).toBeVisible()
  await expect(sheet.getByText('At most 10 rounds')).toBeVisible()
})
test('Verify and the flow bench lead to the first printer', async ({ page }) => {
  for (const path of [
    '/verify',
    '/verify/chamber',
    '/verify/enclosure',
    '/verify/certificate',
    '/inspect/bench',
    '/inspect/wrong',
  ]) {
    await page.goto(path)
    await expect(page.getByRole('main').getByRole('link', { name: /printer/i })).toBeVisible()
  }
})
