/** A case as it is used: from "uneven lines" to the one test that settles it, closed, gone on with, and struck out. */
import { onOwnDemo } from './own-demo'
import { axe, expect, fitsAcross } from './support'

const test = onOwnDemo('wrong')

const verdict = 'article [role=status]'

test('from uneven lines to the test that settles it, and closed', async ({ page }) => {
  await page.goto('/inspect/wrong')
  await page.getByRole('button', { name: 'Open a case' }).click()
  const sheet = page.getByRole('dialog')
  await sheet.getByLabel('Printer').selectOption({ label: 'Ribble' })
  await expect(sheet.getByLabel('Run')).toHaveValue(/.+/)
  // a case with no evidence is said at the place
  await sheet.getByRole('button', { name: 'Open the case' }).click()
  await expect(sheet.getByText('Say what the print shows: one sign at least')).toBeVisible()
  await sheet.getByRole('button', { name: 'There uneven lines', exact: true }).click()
  await sheet.getByRole('button', { name: 'Not there popping' }).click()
  await axe(page, 'open a case')
  await sheet.getByRole('button', { name: 'Open the case' }).click()
  await expect(sheet).toBeHidden()
  await expect(page.getByRole('heading', { name: 'Uneven lines on Ribble' })).toBeVisible()
  // the records are read: spool, setpoints, runs
  await expect(page.getByText(/by its log\.$/).first()).toBeVisible()
  const before = await page.locator(verdict).innerText()
  // it cannot be closed by a test that nobody made
  await page.getByRole('button', { name: 'Say what it was' }).click()
  await sheet.getByRole('radio', { name: /^by a test/ }).check()
  await sheet.getByLabel('How it is known').fill('looked at it')
  await sheet.getByRole('button', { name: 'Close the case' }).click()
  await expect(sheet.getByText(/^No test of this case speaks for/)).toBeVisible()
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  await expect(sheet).toBeHidden()
  // the test, in place: what can hurt, and what it found
  const next = page.getByRole('region', { name: /^Settles most per minute$|^The test$/ })
  await next.getByRole('button', { name: 'Another test' }).click()
  await next.getByRole('button', { name: /^Gauge the bore/ }).click()
  await next.getByRole('button', { name: 'Enter the gauge of N-014' }).click()
  await expect(next.getByLabel('Goes, mm')).toBeVisible()
  await next.getByRole('button', { name: 'Cancel' }).click()
  await next.getByRole('button', { name: 'Not now' }).click()
  await expect(next.getByText('Push out a strand and look at it')).toBeVisible()
  await next.getByRole('button', { name: 'Do it now' }).click()
  await expect(page.getByText('Here it can hurt')).toBeVisible()
  await next.getByRole('button', { name: 'Bubbles in the strand', exact: true }).click()
  await expect(page.locator(verdict)).toContainText('robably moisture')
  expect(await page.locator(verdict).innerText()).not.toBe(before)
  await axe(page, 'a case')
  await page.getByRole('button', { name: 'Say what it was' }).click()
  await expect(sheet.getByLabel('Cause', { exact: true })).toHaveValue(/.+/)
  await sheet.getByRole('button', { name: 'Close the case' }).click()
  await expect(page.locator(verdict)).toHaveText(/^It was moisture, proved by a test\.$/)
  await expect(page.getByText('And that was it.')).toBeVisible()
  // it still shows: the second cause
  await page.getByRole('button', { name: 'It still shows: go on' }).click()
  await expect(sheet.getByRole('button', { name: 'There uneven lines', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true',
  )
  await sheet.getByRole('button', { name: 'Open the case' }).click()
  await expect(page.getByText('Put right before: moisture.')).toBeVisible()
  await page.getByRole('button', { name: /^Moisture/ }).click()
  await expect(page.getByText('Moisture was put right, and it still shows.')).toBeVisible()
})

test('a look, a word over the records, a struck test; a photo at 390 wide', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await page.goto('/run')
  await page
    .getByRole('link', { name: /^What is wrong\?/ })
    .first()
    .click()
  const sheet = page.getByRole('dialog')
  await expect(sheet.getByText(/This run was logged with/)).toBeVisible()
  await sheet.getByRole('button', { name: 'Take that over' }).click()
  await sheet.getByLabel('Photo (if you like)').setInputFiles({
    name: 'print.png',
    mimeType: 'image/png',
    buffer: Buffer.from(PIXEL, 'base64'),
  })
  await expect(sheet.getByAltText('The picture that was taken')).toBeVisible()
  await fitsAcross(page)
  await sheet.getByRole('button', { name: 'Open the case' }).click()
  await expect(page.getByText('Taken when the case was opened')).toBeVisible()
  await fitsAcross(page)
  // a look costs nothing
  const looks = page.getByRole('region', { name: 'Look once more' })
  const asked = await looks.getByRole('button').first().innerText()
  await looks.getByRole('button', { name: /^No/ }).first().click()
  await expect(page.getByText(/: not there\.$/)).toBeVisible()
  expect(asked).toContain('Yes')
  // over the records
  await page
    .getByRole('button', { name: /^Not so\?/ })
    .first()
    .click()
  await page.locator('li select').last().selectOption('not asked')
  await expect(page.getByText(/, over the records/)).toBeVisible()
  await page.reload()
  await axe(page, 'a case on a phone')
  await page.getByRole('button', { name: 'Strike out the case' }).click()
  await sheet.getByLabel('Reason').fill('opened twice')
  await sheet.getByRole('button', { name: 'Strike out' }).click()
  await expect(page.locator(verdict)).toHaveText(/^Struck out by .*: opened twice\.$/)
})

/** One grey pixel. */
const PIXEL = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR4nGNgAAAAAgABSK+kcQAAAABJRU5ErkJggg=='
