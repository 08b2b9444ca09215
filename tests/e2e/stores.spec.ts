/** Stores: a pin found small re-works earlier gauges; what is kept is counted, used, ordered, taken out as a table. */
import { readFileSync } from 'node:fs'
import { onOwnDemo } from './own-demo'
import { axe, expect } from './support'

const test = onOwnDemo('stores')

test('a certificate says whose gauges count by it; nonsense is named at its field', async ({ page }) => {
  test.setTimeout(120_000)
  await page.goto('/stores/pins')
  const said = (text: RegExp | string) => page.getByRole('status').filter({ hasText: text })
  await expect(said(/^The certificate of pin P-45 ran out/)).toBeVisible()
  await expect(page.getByText(/0\.416 mm ± 1\.0 µm \(k = 2\), 4\.0 µm small/).first()).toBeVisible()
  await axe(page, 'Pin gauges')

  await page.getByRole('button', { name: 'New certificate of P-42' }).click()
  await page.getByLabel('It measures, mm').fill('0,62')
  await page.getByLabel('± expanded, k = 2, µm').fill('1')
  await page.getByLabel('Holds until').fill('next year')
  await page.getByRole('button', { name: 'Save the certificate' }).click()
  await expect(page.getByText('Enter a date')).toBeVisible()
  await page.getByLabel('Holds until').fill('2028-01-31')
  await page.getByRole('button', { name: 'Save the certificate' }).click()
  await expect(page.getByText(/is this the certificate of another/)).toBeVisible()
  await page.getByLabel('It measures, mm').fill('0,4155')
  await expect(page.getByText('By that it is 4.5 µm small.')).toBeVisible()
  await page.getByRole('button', { name: 'Save the certificate' }).click()
  await expect(
    said(/^Pin P-42: \d+ gauges of N-\d+.* count by it; their forecasts are worked out anew\.$/),
  ).toBeVisible()

  // the nozzle's own record says what a gauge counts as
  await page.goto('/inspect/N-014')
  await page.getByRole('button', { name: 'Gauge it', exact: true }).first().click()
  await page.getByLabel('Pin mark (go)').fill('P-42')
  await expect(page.getByLabel('Goes, mm')).toHaveValue('0.42')
  await expect(page.getByText('by its certificate 0.4155 mm')).toBeVisible()
  await page.getByLabel('Goes, mm').fill('0.44')
  await page.getByRole('button', { name: 'Save the gauge' }).click()
  await expect(page.getByText('Pin P-42 is 0.42 mm; 0.44 mm was typed')).toBeVisible()
})

test('what is kept: counted, taken, ordered, and out as a table', async ({ page }) => {
  test.setTimeout(120_000)
  await page.goto('/stores/stock')
  const said = (text: RegExp | string) => page.getByRole('status').filter({ hasText: text })
  await expect(
    said(/^Glass sheet 310 mm: None is there; the minimum is 1\. Order at least 1\. And 1 more thing short\.$/),
  ).toBeVisible()
  await axe(page, 'Stock and orders')

  await page.getByRole('button', { name: 'Count Toothed belt 6 mm, 2 m' }).click()
  await page.getByLabel('There are, pieces').fill('-1')
  await page.getByRole('button', { name: 'Save it' }).click()
  await expect(page.getByText('A quantity is not below zero')).toBeVisible()
  await page.getByLabel('There are, pieces').fill('5')
  await page.getByRole('button', { name: 'Save it' }).click()
  await expect(said('Toothed belt 6 mm, 2 m: 5 there now.')).toBeVisible()
  await expect(said(/^Glass sheet 310 mm: None is there; the minimum is 1\. Order at least 1\.$/)).toBeVisible()

  await page.getByRole('button', { name: /^Took or came ?: Glass sheet 310 mm/ }).click()
  await page.getByLabel('How many, pieces').fill('2')
  await page.getByRole('button', { name: 'Save it' }).click()
  await expect(page.getByText(/the book is wrong by 2: count it/)).toBeVisible()
  await page.getByLabel('What happened').selectOption('received')
  await page.getByRole('button', { name: 'Save it' }).last().click()
  await expect(said('Glass sheet 310 mm: 2 there now.')).toBeVisible()

  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'CSV' }).click()
  const text = readFileSync((await (await download).path())!, 'utf8')
  expect(text.split('\n')[0]).toMatch(/^what,kind,order,unit,"?price of one/)
  expect(text).toMatch(/hardened steel 0\.4,nozzle,\d+,pieces,20/)

  await page.getByRole('button', { name: 'Set a minimum ruby tip 0.4' }).click()
  await page.getByLabel('Minimum', { exact: true }).fill('3')
  await page.getByLabel('Price of one').fill('60')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('Enter the day of the price')).toBeVisible()
  await page.getByLabel('Price of the day').fill('2026-11-02')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText(/minimum 3/).first()).toBeVisible()

  await page.goto('/due')
  await expect(page.getByText(/ruby tip 0\.4/).first()).toBeVisible()
})

test('labels: chosen, laid out, named at the place where they cannot be; read again from a picture', async ({
  page,
}) => {
  test.setTimeout(120_000)
  await page.goto('/stores/labels')
  const said = (text: RegExp | string) => page.getByRole('status').filter({ hasText: text })
  await page.getByRole('searchbox', { name: 'Find' }).fill('N-03')
  await page.getByRole('button', { name: /^All \d+$/ }).click()
  await expect(said(/^\d+ labels of 62 × 29 mm\.$/)).toBeVisible()
  await page.getByLabel('Wide, mm').fill('0')
  await expect(page.getByText('Enter 15 to 210 mm')).toBeVisible()
  await expect(page.getByRole('button', { name: /^Print \d/ })).toBeDisabled()
  await page.getByRole('button', { name: '25 × 25 mm' }).click()
  await axe(page, 'Labels')
  await page.getByRole('button', { name: 'A4 sheet' }).click()
  await page.getByLabel('First free place').fill('900')
  await expect(page.getByText(/Enter 1 to 88/)).toBeVisible()
  await page.getByLabel('First free place').fill('3')

  // what the drawing shows, a photo of it tells
  await page.getByRole('button', { name: 'Label by label' }).click()
  const picture = await page.getByRole('img', { name: 'Label N-032' }).screenshot()
  await page.getByRole('button', { name: 'Read a label by photo or camera' }).click()
  await axe(page, 'Read a label')
  await page
    .getByLabel('Photo of the label')
    .setInputFiles({ name: 'no.txt', mimeType: 'text/plain', buffer: Buffer.from('no picture') })
  await expect(page.getByText('This is no picture that the browser can read.')).toBeVisible()
  await page
    .getByLabel('Photo of the label')
    .setInputFiles({ name: 'label.png', mimeType: 'image/png', buffer: picture })
  const strip = page.getByRole('combobox', { name: /^Log or find/ })
  await expect(strip).toHaveValue('N-032')
  await strip.press('Enter')
  await expect(page).toHaveURL(/\/inspect\/N-032$/)

  // a phone's camera opens the address, a hand scanner types it
  await page.goto('/t/S-07')
  await expect(page).toHaveURL(/\/prepare\/spool\/S-07$/)
  await page.goto('/t/X-99')
  await expect(said('Nothing in this shop has the tag X-99.')).toBeVisible()
  await page.goto('/t/Ribble')
  await expect(page.getByRole('link', { name: 'May I start' })).toBeVisible()
  await strip.fill('http://shop.example:3000/t/N-014')
  await strip.press('Enter')
  await expect(page).toHaveURL(/\/inspect\/N-014$/)

  // an address that every machine has is refused where it is entered
  await page.goto('/stores?tab=Shop')
  await page.getByRole('button', { name: 'Edit the shop' }).click()
  await page.getByLabel('Address on labels').fill('http://127.0.0.1:3000')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText(/every machine’s own address/)).toBeVisible()
  await page.getByLabel('Address on labels').fill('http://hollin.example:3000/')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByRole('dialog')).toHaveCount(0)
  // it takes its step in the history back: the next address comes after that
  await expect(page).toHaveURL(/\/stores\?tab=Shop$/)
  await page.waitForTimeout(300)
  await page.goto('/stores/labels')
  await expect(page.getByText('http://hollin.example:3000/t/…')).toBeVisible()
})

test('totals: split, drawn, and out as a table', async ({ page }) => {
  test.setTimeout(120_000)
  await page.goto('/stores/totals')
  await expect(
    page.getByRole('status').filter({ hasText: /^In 13 weeks, this one so far: .* kg printed, .* of it fibre;/ }),
  ).toBeVisible()
  await expect(page.getByRole('img', { name: /^Filament by week: W\d+/ })).toBeVisible()
  await axe(page, 'Totals')
  await page.getByRole('button', { name: 'By month' }).click()
  await page.getByRole('button', { name: 'Nozzle', exact: true }).click()
  await page.getByRole('button', { name: 'Failed', exact: true }).click()
  await expect(page.getByRole('img', { name: /^Failed by month: / })).toBeVisible()
  await expect(page.getByRole('heading', { name: 'By nozzle, all 12 months' })).toBeVisible()
  await expect(page.getByText('N-014').first()).toBeVisible()
  await page.reload()
  await expect(page.getByRole('heading', { name: 'By nozzle, all 12 months' })).toBeVisible()
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'CSV' }).click()
  const lines = readFileSync((await (await download).path())!, 'utf8').split('\n')
  expect(lines[0]).toMatch(/^month from,nozzle,runs,failed/)
  expect(lines.filter(l => l.includes(',all,'))).toHaveLength(12)
})
