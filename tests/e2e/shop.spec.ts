/** The whole path by mouse on the demo shop. */
import { axe, expect, jobFile, test } from './support'

test('every main view is free of accessibility faults', async ({ page }) => {
  await page.goto('/')
  await expect(page.getByRole('heading', { name: 'Aire' })).toBeVisible()
  await axe(page, 'floor')
  await page.getByRole('button', { name: 'Fit another to Ribble' }).click()
  await expect(page.getByRole('dialog')).toBeVisible()
  await axe(page, 'fit sheet')
  await page.keyboard.press('Escape')
  await page.goto('/run')
  await expect(page.getByRole('heading', { name: 'Logged runs' })).toBeVisible()
  await axe(page, 'run')
  await page.goto('/inspect')
  await expect(page.getByRole('link', { name: /N-014/ })).toBeVisible()
  await axe(page, 'inspect')
  await page.goto('/inspect/N-014?gauge=1')
  await expect(page.getByLabel('Goes, mm')).toBeVisible()
  await expect(page.locator('figure svg').last()).toBeVisible()
  await axe(page, 'nozzle with gauge form')
  await page.goto('/stores')
  for (const tab of ['Nozzles', 'Spools', 'Printers', 'Materials', 'Nozzle types', 'Shop']) {
    await page.getByRole('tab', { name: tab, exact: true }).click()
    await axe(page, `stores ${tab}`)
  }
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible()
  await axe(page, 'keys')
})

test('every main view prints within the width of a page, without the frame around it', async ({ page }) => {
  // A4 at 96 dpi, upright or across
  const wide = ['', 'equip/fleet', 'equip/buy']
  const upright = ['equip', 'prepare', 'run', 'inspect', 'inspect/N-014', 'stores', 'inspect/picture']
  const verify = ['verify', 'verify/chamber', 'verify/enclosure']
  for (const path of [...wide, ...upright, 'inspect/study', 'inspect/types', ...verify]) {
    const width = wide.includes(path) ? 1123 : 794
    await page.setViewportSize({ width, height: 1917 - width })
    await page.emulateMedia({ media: 'screen' })
    await page.goto(`/${path}`)
    await expect(page.getByRole('navigation', { name: 'Stations' })).toBeVisible()
    await page.waitForLoadState('networkidle')
    await page.emulateMedia({ media: 'print' })
    await expect(page.getByRole('navigation', { name: 'Stations' })).toBeHidden()
    const { main, whole } = await page.evaluate(() => ({
      main: document.querySelector('main')!.getBoundingClientRect().width,
      whole: document.documentElement.scrollWidth,
    }))
    expect.soft(main, path).toBeGreaterThan(0.97 * width)
    expect.soft(whole, path).toBeLessThanOrEqual(width)
  }
})

test('floor: verdict before the drawing, reasons and one action each, limits with their basis', async ({ page }) => {
  await page.goto('/')
  await expect(
    page.getByText(/^Stop at Aire, Swale, and Lune: Out of service: the hotend fan stalls now and then/),
  ).toBeVisible()
  await expect(page.getByText(/^The last job asked 275 °C/)).toBeVisible()
  await expect(
    page.getByRole('img', { name: /nozzle: limit 230 °C, PTFE liner; last job asked 275 °C, too much/ }),
  ).toBeVisible()
  const bench = page.getByRole('complementary')
  for (const item of await bench.getByRole('listitem').all()) await expect(item.getByRole('link')).toHaveCount(1)
  const ribble = page.getByRole('region', { name: 'Ribble' })
  await ribble.getByText('Limits and their basis').click()
  await expect(
    ribble.getByText(/chamber 65 °C, printed idler, PETG \(as air near the top\): start value.*Entered by Shop lead/),
  ).toBeVisible()
  await bench.getByRole('link', { name: 'Gauge it after this job' }).first().click()
  await expect(page).toHaveURL(/\/inspect\/N-014\?gauge=1/)
})

test('a job file: read, shown, assigned, logged with its effect; a failed one by percent', async ({ page }) => {
  await page.goto('/run')
  await page.getByLabel('Job files').setInputFiles({ name: 'guide.gcode', mimeType: 'text/plain', buffer: jobFile() })
  await expect(page.getByText('5.00 m of filament')).toBeVisible()
  await expect(page.getByText('280 °C').first()).toBeVisible()
  await page.getByLabel('Printer').selectOption({ label: 'Ribble' })
  await expect(page.getByLabel('Nozzle', { exact: true })).toHaveValue(/.+/)
  await page.getByLabel('Spool', { exact: true }).selectOption({
    label: await page
      .getByLabel('Spool', { exact: true })
      .locator('option', { hasText: 'PA6-CF20' })
      .first()
      .innerText(),
  })
  await expect(page.getByText(/14.8 g PA6-CF20, 3 g fibre through N-014|2.95 g fibre|3.0 g fibre/)).toBeVisible()
  await page.getByRole('button', { name: 'Save the run' }).click()
  await expect(page.getByRole('status').filter({ hasText: /\+3(\.0)? g fibre on N-014; .* left/ })).toBeVisible()
  await expect(page.getByRole('cell', { name: /^guide PA6-CF20/ })).toBeVisible()

  await page.getByRole('button', { name: 'guide.gcode', exact: true }).click()
  await page.getByLabel('Spool', { exact: true }).selectOption({ index: 0 })
  await page.getByLabel('Material').selectOption({ label: 'PA6-CF20' })
  await page.getByText('failed', { exact: true }).click()
  await page.getByLabel('Share printed, %').fill('150')
  await page.getByRole('button', { name: 'Save the run' }).click()
  await expect(page.getByText('At most 100 %')).toBeVisible()
  await page.getByLabel('Share printed, %').fill('40,5')
  await page.getByLabel('warped').check()
  await page.getByRole('button', { name: 'Save the run' }).click()
  await expect(page.getByRole('status').filter({ hasText: /\+1\.2 g fibre on N-014/ })).toBeVisible()
  await expect(page.getByText('failed at 40.5 %: warped')).toBeVisible()
})

test('a file that asks too much says so before it is saved', async ({ page }) => {
  await page.goto('/run')
  await page
    .getByLabel('Job files')
    .setInputFiles({ name: 'hot.gcode', mimeType: 'text/plain', buffer: jobFile({ nozzleC: 275 }) })
  await page.getByLabel('Printer').selectOption({ label: 'Aire' })
  await expect(
    page
      .getByRole('alert')
      .filter({ hasText: 'It asks too much here: the limit of the PTFE liner is 230 °C, it needs 275 °C.' }),
  ).toBeVisible()
})

test('gauging on the chart: the band shifts before saving, the answer says what follows, a strike undoes it', async ({
  page,
}) => {
  await page.goto('/inspect/N-022')
  await expect(page.getByText('chance, all gauges so far')).toBeVisible()
  const left = page.locator('dd', { hasText: /kg$|g$/ }).first()
  const before = await left.innerText()
  await page.getByRole('button', { name: 'Gauge it' }).click()
  await page.getByLabel('Goes, mm').fill('0,63')
  await page.getByLabel('Does not go, mm').fill('0.64')
  await expect(page.getByText('chance, with this gauge')).toBeVisible()
  await expect(left).not.toHaveText(before)
  await page.getByLabel('oval').check()
  await page.getByRole('button', { name: 'Save the gauge' }).click()
  await expect(
    page.getByRole('status').filter({ hasText: /N-022 is at ⌀0\.6\d\d mm \(80 % between .*; about .* left, gauge/ }),
  ).toBeVisible()
  await expect(page.getByText('Last gauge found it oval')).toBeVisible()
  await page
    .getByRole('button', { name: /^Strike out Gauge/ })
    .first()
    .click()
  await page.getByLabel('Reason').fill('x')
  await page.getByRole('dialog').getByRole('button', { name: 'Strike out' }).click()
  await expect(page.getByText('Say why it is struck out')).toBeVisible()
  await page.getByLabel('Reason').fill('wrong nozzle')
  await page.getByRole('dialog').getByRole('button', { name: 'Strike out' }).click()
  await expect(page.getByText(/Struck out by Day technician.*wrong nozzle/)).toBeVisible()
  await expect(left).toHaveText(before)
})

test('a click on the chart sets the pins on either side', async ({ page }) => {
  await page.goto('/inspect/N-014?gauge=1')
  const chart = page.getByRole('img', { name: /^Bore against fibre mass/ })
  await expect(chart.locator('svg text').first()).toBeVisible()
  const box = (await chart.boundingBox())!
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2)
  await expect(page.getByLabel('Goes, mm')).toHaveValue(/^0\.4\d?$/)
  const go = Number(await page.getByLabel('Goes, mm').inputValue())
  expect(Number(await page.getByLabel('Does not go, mm').inputValue())).toBeCloseTo(go + 0.01, 9)
})

test('a smaller bore than last time is asked, not refused', async ({ page }) => {
  await page.goto('/inspect/N-031?gauge=1')
  await page.getByText('a value, ± how sure').click()
  await page.getByLabel('Bore, mm').fill('0.37')
  await page.getByLabel('± (one standard uncertainty), mm').fill('0.002')
  await page.getByRole('button', { name: 'Save the gauge' }).click()
  await expect(page.getByText(/A bore does not shrink/)).toBeVisible()
  await expect(page.getByLabel('Bore, mm')).toHaveValue('0.37')
  await page.getByRole('button', { name: 'Cancel' }).click()
  await expect(page.getByText('0.37 ± 0.002')).toHaveCount(0)
})

test('fit from the column; the nozzle that was there comes off', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('button', { name: 'Fit another to Nidd' }).click()
  await page.getByLabel('Nozzle', { exact: true }).selectOption({
    label: await page.getByLabel('Nozzle', { exact: true }).locator('option', { hasText: 'N-034' }).innerText(),
  })
  await page.getByRole('dialog').getByRole('button', { name: 'Fit', exact: true }).click()
  await expect(page.getByRole('status').filter({ hasText: 'N-034 is fitted to Nidd; N-017 came off.' })).toBeVisible()
  await expect(page.getByRole('region', { name: 'Nidd' }).getByRole('link', { name: /N-034/ })).toBeVisible()
})

test('the person in the header makes the entry', async ({ page }) => {
  await page.goto('/inspect/N-030?gauge=1')
  // a new browser asks who is there before anything carries a name
  const who = page.getByRole('region', { name: 'Who is there' })
  await who.getByRole('button', { name: 'Day technician' }).click()
  await expect(who).toHaveCount(0)
  await page
    .getByRole('banner')
    .getByRole('button', { name: /Day technician/ })
    .click()
  await page.getByRole('menuitem', { name: 'Night technician' }).click()
  await page.getByLabel('Tip length, over all, mm').fill('12.49')
  await page.getByRole('button', { name: 'Save the gauge' }).click()
  await expect(page.getByRole('row', { name: /Gauge.*Night technician.*tip 12.49 mm/ })).toBeVisible()
})

test('two people edit one limit: the second sees both versions', async ({ page, context }) => {
  const open = async (p: typeof page, value: string) => {
    await p.goto('/equip/stack')
    await p.getByRole('link', { name: /^Wharfe/ }).click()
    await p.getByRole('button', { name: 'Edit linear bearings' }).click()
    await p.getByLabel('Limit as rated, °C').fill(value)
    await p.getByLabel('Basis', { exact: true }).selectOption('data sheet')
  }
  const other = await context.newPage()
  // a limit that somebody enters is no start value any more
  await open(page, '118')
  await page.getByLabel('Basis', { exact: true }).selectOption('start value')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('Say where the limit comes from: it is no start value any more')).toBeVisible()
  await page.getByLabel('Basis', { exact: true }).selectOption('data sheet')
  await open(other, '115')
  await other.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(other.getByRole('dialog')).toHaveCount(0)
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('Someone changed this meanwhile. Nothing was overwritten.')).toBeVisible()
  await expect(page.getByRole('row', { name: 'Limit as rated 115 118' })).toBeVisible()
  await page.getByRole('button', { name: 'Keep mine, then save' }).click()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await expect(page.getByRole('cell', { name: '118 °C' })).toBeVisible()
})
