/** An entry that was wrong is entered again from what it was; lists answer to the keyboard. */
import { expect } from '@playwright/test'
import { onOwnDemo } from './own-demo'

const test = onOwnDemo('again')

test('a run of a job file: its reason asked, the file set aside, the old one struck in the same step', async ({
  page,
}) => {
  await page.goto('/run')
  const row = page.getByRole('row').filter({ hasText: 'cable guide' }).first()
  await row.getByRole('button', { name: /^Strike out/ }).click()
  await page.getByRole('link', { name: 'Enter it again with what is right' }).click()
  await expect(page.getByText('In place of the run of')).toBeVisible()
  await expect(page.getByLabel('Why the old one is struck out')).toBeFocused()
  await expect(page.getByLabel('Why the old one is struck out')).toBeInViewport()
  await expect(page.getByLabel('Job', { exact: true })).toHaveValue('cable guide')
  await page.reload() // the address keeps what it is about
  await page.getByRole('button', { name: 'Enter what was extruded instead' }).click()
  await page.getByLabel('Extruded, m').fill('90')
  await page.getByRole('button', { name: 'Save the run' }).click()
  await expect(page.getByText('Say why it is struck out')).toBeVisible()
  await expect(page.getByLabel('Extruded, m')).toHaveValue('90')
  await page.getByLabel('Why the old one is struck out').fill('another file')
  await page.getByRole('button', { name: 'Save the run' }).click()
  await expect(page.getByText('Saved: cable guide')).toBeVisible()
  await expect(page).toHaveURL(/\/run$/)
  await expect(page.getByText('Struck out by Day technician: another file')).toHaveCount(1)
})

test('an entry of a spool and a gauge: filled as they were; left alone they stand', async ({ page }) => {
  await page.goto('/prepare/spool/S-01')
  await page.getByRole('button', { name: 'Strike out loaded' }).click()
  await page.getByRole('link', { name: 'Enter it again with what is right' }).click()
  const sheet = page.getByRole('dialog')
  await expect(sheet.getByLabel('What happened')).toHaveValue(/./)
  await sheet.getByLabel('Why the old one is struck out').fill('an hour later')
  await sheet.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('struck out: an hour later')).toBeVisible()
  await expect(page).toHaveURL(/S-01$/)

  await page.goto('/inspect/N-022')
  const all = page.getByRole('button', { name: /^Show \d+ entries/ })
  if (await all.isVisible()) await all.click()
  await page
    .getByRole('button', { name: /^Strike out Gauge/ })
    .first()
    .click()
  await page.getByRole('link', { name: 'Enter it again with what is right' }).click()
  await expect(page.getByLabel('Goes, mm')).toHaveValue(/^0\.6\d$/)
  await page.getByRole('button', { name: 'Cancel' }).click()
  await expect(page).toHaveURL(/N-022$/)
  await page.goto('/inspect/N-022?again=gauge:99999999')
  await expect(page.getByRole('alert').filter({ hasText: 'This gauge is not known' })).toBeVisible()
})

test('what waited to be sent still takes the old one’s place, and can be a new one where that is gone', async ({
  page,
}) => {
  await page.goto('/inspect/N-020')
  const all = page.getByRole('button', { name: /^Show \d+ entries/ })
  if (await all.isVisible()) await all.click()
  await page
    .getByRole('button', { name: /^Strike out (Receipt gauge|Gauge)/ })
    .first()
    .click()
  await page.getByRole('link', { name: 'Enter it again with what is right' }).click()
  await page.getByLabel('Why the old one is struck out').fill('read wrong')
  const id = Number(/gauge%3A(\d+)/.exec(page.url())![1])
  // the server is away, and meanwhile somebody else strikes the old one
  await page.route('**/api/gauges', route => route.abort())
  await page.getByRole('button', { name: 'Save the gauge' }).click()
  await expect(page.getByRole('button', { name: /1 waiting to be sent/ })).toBeVisible()
  const struck = await page.request.post('/api/strikes', {
    headers: { 'content-type': 'application/json', 'idempotency-key': 'again-spec-strike' },
    data: { target: 'gauge', targetId: id, reason: 'somebody else' },
  })
  expect(struck.status()).toBe(201)
  await page.unroute('**/api/gauges')
  await page.getByRole('button', { name: /1 entry needs you/ }).click({ timeout: 45_000 })
  await page.getByRole('button', { name: 'Edit' }).click()
  await expect(page.getByText('that was entered before')).toBeVisible()
  await page.getByRole('button', { name: 'Save the gauge' }).click()
  await expect(page.getByText('This entry is struck out already')).toBeVisible()
  await page.getByRole('button', { name: 'Enter it as a new one' }).click()
  await page.getByRole('button', { name: 'Save the gauge' }).click()
  const asked = page.getByRole('button', { name: /as read|as it was read|Store it/i }).first()
  await expect(page.getByRole('button', { name: 'all entries saved' }).or(asked)).toBeVisible()
})

test('six alike; found, put in order and walked through by keys alone', async ({ page }) => {
  await page.goto('/stores?add=nozzle')
  const sheet = page.getByRole('dialog')
  await sheet.getByLabel('Type').selectOption({ label: 'brass 0.4' })
  await sheet.getByLabel('How many alike').fill('6')
  const [, from, to] = /(N-\d+) to (N-\d+)/.exec(await sheet.getByText(/^N-\d+ to N-\d+$/).innerText())!
  // what was measured is of one
  await sheet.getByLabel('Goes, mm').fill('0.4')
  await sheet.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(sheet.getByText(/^A receipt gauge is of one nozzle/)).toBeVisible()
  await sheet.getByLabel('Goes, mm').fill('')
  await sheet.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText(`6 nozzles from ${from}: saved`)).toBeVisible()
  await expect(page.getByRole('link', { name: to })).toBeVisible()

  await page.goto('/stores?tab=Spools')
  await page.getByRole('button', { name: 'least left' }).click()
  await expect(page).toHaveURL(/sort=least/)
  await page.evaluate(() => (document.activeElement as HTMLElement).blur())
  await page.keyboard.press('f')
  await expect(page.getByRole('searchbox', { name: 'Find' })).toBeFocused()
  await page.keyboard.type('pa12')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowRight')
  await expect(page.getByRole('listitem').nth(1).getByRole('button', { name: /^Edit/ })).toBeFocused()
  await expect(page).toHaveURL(/find=pa12/)
  await page.reload()
  await expect(page.getByRole('searchbox', { name: 'Find' })).toHaveValue('pa12')

  await page.goto('/inspect')
  await page.getByText('chance past its limit').first().waitFor()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/\/inspect\/N-\d+$/)
})

test('what a check is of stands in its address, also for another browser', async ({ page, browser }) => {
  await page.goto('/prepare/check')
  await page.getByLabel('Printer').selectOption({ label: 'Wharfe' })
  await page.getByLabel('Prints from').selectOption({ label: 'the dryer' })
  await page.getByLabel('Job takes').fill('3.5')
  await expect(page).toHaveURL(/printer=Wharfe&spool=S-\d+&from=dryer&hours=3.5/)
  const other = await browser.newPage()
  await other.goto(page.url())
  await expect(other.getByLabel('Job takes')).toHaveValue('3.5')
  await expect(other.getByLabel('Printer').locator('option:checked')).toHaveText('Wharfe')
  await other.close()
})
