/** Sensors checked as a technician does it, and what every station says after it. */
import type { Page } from '@playwright/test'
import { onOwnDemo } from './own-demo'
import { axe, expect, fitsAcross } from './support'

const test = onOwnDemo('verify')

const pick = (page: Page, name: RegExp) => page.getByRole('button', { name }).first().click()
const sheet = (page: Page) => page.getByRole('dialog')
async function point(page: Page, nth: number, shown: string, reading: string, cold?: string): Promise<void> {
  const row = sheet(page).getByRole('group', { name: `Point ${nth}`, exact: true })
  await row.getByLabel(/printer shows/).fill(shown)
  await row.getByLabel(/^Reference reads/).fill(reading)
  if (cold !== undefined) await row.getByLabel(/^Cold junction/).fill(cold)
}

test('the sensor that reads low is said first, and Equip asks for what is set', async ({ page }) => {
  await page.goto('/')
  await expect(page.getByRole('link', { name: /Verify/ })).toContainText('1')
  await page.locator('body').press('6')
  await expect(
    page.getByRole('status').filter({ hasText: /^Wharfe hotend reads 6\.2 °C low: what it heats is hotter/ }),
  ).toBeVisible()
  await expect(page.getByText('Set 283.8 °C for 290 °C: the sensor reads 6.2 °C low')).toBeVisible()
  await axe(page, 'verify')
  await page.goto('/equip')
  const choose = async (id: string, like: RegExp) => {
    const option = page.locator(`${id} option`).filter({ hasText: like }).first()
    await page.locator(id).selectOption({ label: (await option.innerText()).trim() })
  }
  await choose('#ask-printer', /^Wharfe/)
  await expect(
    page.getByText(/Set \d+(\.\d)? °C for \d+ °C: the sensor reads \d\.\d °C low, by its check of/).first(),
  ).toBeVisible()
})

test('a check: nonsense at its field, the preview, what changes on the Floor, and struck out again', async ({
  page,
}) => {
  await page.goto('/verify')
  await pick(page, /Ribble hotend/)
  await expect(page.getByText('Nobody has checked this sensor. Its part of the guard band, 5 °C')).toBeVisible()
  await page.getByRole('button', { name: 'Check it' }).click()
  await axe(page, 'check a sensor')
  // millivolts of no such thermocouple, and a cold junction that is none, are answered while they are typed
  await point(page, 1, '240', '60', '24,5')
  await expect(sheet(page).getByText(/Enter .* mV \(type K with its cold junction at 24\.5 °C\)/)).toBeVisible()
  await point(page, 1, '240', '9.124', '400')
  await expect(sheet(page).getByText(/Enter -40 to 80/)).toBeVisible()
  await point(page, 1, '240', '9,124', '24.5')
  await expect(sheet(page).getByText(/In truth 248\.\d °C: it reads 8\.\d °C low, ± \d\.\d °C\./)).toBeVisible()
  await point(page, 2, '285', '11.064', '24.5')
  await expect(sheet(page).getByText(/Fail: reads 1?\d\.\d °C low at 2\d\d °C shown/)).toBeVisible()
  await expect(sheet(page).getByText(/The nozzle may be set to 28\d °C, before to 290 °C\./)).toBeVisible()
  // nothing typed is lost
  await sheet(page).getByRole('button', { name: 'Close' }).click()
  await expect(sheet(page)).toBeHidden()
  await page.reload()
  await pick(page, /Ribble hotend/)
  await page.getByRole('button', { name: 'Check it' }).click()
  await expect(
    sheet(page)
      .getByRole('group', { name: 'Point 2', exact: true })
      .getByLabel(/printer shows/),
  ).toHaveValue('285')
  await sheet(page).getByRole('button', { name: 'Save the check' }).click()
  await expect(
    page.getByRole('status').filter({ hasText: /^Ribble hotend: fail\. The nozzle may be set to 28\d °C/ }),
  ).toBeVisible()
  await expect(page.getByRole('status').filter({ hasText: /other failed/ })).toBeVisible()
  await page.goto('/')
  await expect(page.getByRole('region', { name: 'Ribble' })).toContainText('28')
  // struck out, the sensor is unchecked again
  await page.goto('/verify?printer=Ribble')
  await page.getByRole('button', { name: 'Strike out' }).click()
  await sheet(page).getByLabel('Reason').fill('the couple was not in its hole')
  await sheet(page).getByRole('button', { name: 'Strike out' }).click()
  await expect(page.getByText('Nobody has checked this sensor as it sits there now.')).toBeVisible()
  await expect(page.getByText('struck out: the couple was not in its hole')).toBeVisible()
})

test('by the thermometer: what the printer shows and what the probe reads, at a press each', async ({ page }) => {
  await page.goto('/verify')
  await pick(page, /Wharfe hotend/)
  await page.getByRole('button', { name: 'Check it' }).click()
  await expect(sheet(page).getByRole('button', { name: /^Read channel/ })).toHaveCount(0)
  await sheet(page).getByLabel('Reference', { exact: true }).selectOption({ label: 'Air probe' })
  await sheet(page).getByRole('button', { name: 'Take what it shows now as point 1' }).click()
  await expect(sheet(page).getByLabel('1: printer shows')).toHaveValue(/^27\d/)
  // the first press puts the stand-in's probe there; it lags some seconds
  await expect(async () => {
    await sheet(page).getByRole('button', { name: 'Read channel 1 as point 1' }).click()
    await expect(sheet(page).getByText(/it reads [567]\.\d °C low/)).toBeVisible({ timeout: 500 })
  }).toPass()
  await sheet(page).getByRole('button', { name: 'Cancel' }).click()
})

test('the thermistor table follows what is typed, and names what is wrong', async ({ page }) => {
  await page.goto('/verify/thermistor')
  await expect(page.getByText('At 300 °C it has 174 Ω and reads as 146 of 4096.')).toBeVisible()
  await axe(page, 'thermistor table')
  await page.getByLabel('The thermistor is known by').selectOption({ label: 'three points (Steinhart–Hart)' })
  await page.getByLabel('it has, Ω').nth(2).fill('2000')
  await expect(page.getByText(/Enter under 1770 Ω: a thermistor falls as it gets hotter/)).toBeVisible()
  await page.getByLabel('it has, Ω').nth(2).fill('250,5')
  const file = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save as CSV' }).click()
  expect((await file).suggestedFilename()).toBe('thermistor-table.csv')
})

for (const width of [820, 390])
  test(`at ${width} px a tapped sensor's record comes into sight, and nothing is wider than the screen`, async ({
    page,
  }) => {
    await page.setViewportSize({ width, height: 900 })
    for (const path of ['/verify/thermistor', '/verify']) {
      await page.goto(path)
      await expect(page.getByRole('navigation', { name: 'Verify' })).toBeVisible()
      await expect(page.locator('main .sheet:visible').first()).toBeVisible()
      await fitsAcross(page)
    }
    await pick(page, /Calder hotend/)
    await expect(page.getByRole('heading', { name: 'Calder hotend' })).toBeInViewport()
  })
