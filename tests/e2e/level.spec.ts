/** A bed at the printer: described, measured by feeler and by a pasted mesh, Z lost over a power-off. */
import { onOwnDemo } from './own-demo'
import { axe, expect } from './support'

const test = onOwnDemo('level')

test('a bed is described, gone round twice with a feeler, and told level', async ({ page }) => {
  await page.goto('/change/level?printer=Swale')
  await expect(page.getByRole('status').first()).toHaveText(
    'How the bed of Swale is screwed down is not described yet.',
  )
  await page.getByRole('button', { name: 'Describe the bed' }).click()
  await page.getByLabel('Bed, left to right, mm').fill('300')
  await page.getByLabel('Bed, front to back, mm').fill('300')
  await page.getByLabel('Pitch: one turn moves it by, mm').fill('0')
  await page.getByRole('button', { name: /^(Add|Save)/ }).click()
  await expect(page.getByText('At least 0.2 mm')).toBeVisible()
  await page.getByLabel('Pitch: one turn moves it by, mm').fill('0,5')
  await page.getByRole('button', { name: /^(Add|Save)/ }).click()
  await expect(page.getByRole('status').filter({ hasText: 'The bed of Swale was not measured yet.' })).toBeVisible()

  await page.getByRole('button', { name: 'Measure by feeler' }).click()
  await page.getByLabel('Bed was at, °C').fill('100')
  for (const [i, mm] of ['0.1', '0,35', '0.1'].entries()) await page.locator(`#gap-0-${i}`).fill(mm)
  await expect(page.getByText('front right: 1/2 turn anticlockwise')).toBeVisible()
  await page.getByRole('button', { name: 'Screws are turned: go round again' }).click()
  for (const [i, mm] of ['0.1', '0.12', '0.1'].entries()) await page.locator(`#gap-1-${i}`).fill(mm)
  await page.getByRole('button', { name: 'Save what was measured' }).click()
  await expect(page.getByRole('status').filter({ hasText: /^Swale: Level to 0\.02 mm/ })).toBeVisible()
  await expect(page.getByText('Measured before')).toBeVisible()
})

test('a mesh with holes and decimal commas is read; what cannot be is named at its line', async ({ page }) => {
  await page.goto('/change/level?printer=Ribble')
  await page.getByRole('button', { name: 'Paste a mesh' }).click()
  const text = page.getByLabel('The heights, as the printer prints them or as a table, mm')
  await text.fill('0,125,0,130\n0,110,0,120')
  await expect(page.getByText(/Line 1: These commas may be decimals/)).toBeVisible()
  await expect(page.getByRole('button', { name: 'Save the mesh' })).toBeDisabled()
  await text.fill('0,10 0,10 0,32\n0,11 nan 0,30\n0,10 0,11')
  await expect(
    page.getByText('Line 3: 2 numbers where the first row has 3: write nan where one is missing'),
  ).toBeVisible()
  // kept over a reload
  await page.reload()
  await page.getByRole('button', { name: 'Paste a mesh' }).click()
  await expect(text).toHaveValue(/0,11 nan/)
  await text.fill('0,10 0,10 0,32\n0,11 nan 0,30\n0,10 0,11 0,31')
  await expect(page.getByText('Missing, and left out: row 2, column 2.')).toBeVisible()
  await page.getByRole('button', { name: 'Save the mesh' }).click()
  await expect(page.getByText('Say where the first row is')).toBeVisible()
  await page.getByLabel('Its first row is at the').selectOption('front of the bed')
  await page.getByRole('button', { name: 'Save the mesh' }).click()
  await expect(page.getByRole('status').filter({ hasText: /^Ribble: 0\.22 mm from the highest/ })).toBeVisible()
  await axe(page, 'Level and Z')
})

test('a Z that reads 0 after a power-off is a look in May I start, until it is set again', async ({ page }) => {
  test.setTimeout(120_000)
  const z = async (why: string, mm: string) => {
    await page.goto('/change/level?printer=Wharfe')
    await page.getByRole('button', { name: 'Log Z' }).click()
    await page.getByLabel('What it is').selectOption(why)
    await page.getByLabel('Z number, as the printer shows it, mm').fill(mm)
    await page.getByRole('button', { name: 'Save the number' }).click()
  }
  await z('read after the power was off', '0')
  await expect(
    page.getByRole('status').filter({ hasText: /^Wharfe: Z reads 0\.000 mm after a power-off/ }),
  ).not.toHaveCount(0)
  const check = async () => {
    await page.goto('/prepare/check?printer=Wharfe')
    await page.selectOption('#check-spool', { index: 0 })
    await page.selectOption('#check-material', { label: 'ABS' })
    const job = page.locator('#check-job option', { hasText: 'relay-base_ABS' }).first()
    await page.selectOption('#check-job', { label: (await job.textContent())! })
  }
  await check()
  const line = page.getByText(/Z reads 0\.000 mm after a power-off/)
  await expect(line).toBeVisible()
  await page.getByRole('link', { name: 'Level and Z' }).first().click()
  await expect(page).toHaveURL(/change\/level\?printer=Wharfe/)
  await z('set by feeler, hot', '-1,42')
  await expect(page.getByRole('status').filter({ hasText: 'Wharfe: Z is -1.420 mm.' })).toBeVisible()
  await check()
  await expect(page.getByText(/Bed, .*: 0\.18 mm from the highest/)).toBeVisible()
  await expect(line).toHaveCount(0)
})
