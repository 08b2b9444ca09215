/* eslint-disable max-lines -- one walk after the other through one station */
/**
 * Equip: the job of an equipping technician from question to fitted change, and everything that can be typed wrongly.
 */
import type { Page } from '@playwright/test'
import { axe, expect, fitsAcross, jobFile, test } from './support'

const choose = async (page: Page, filament: string, printer: string, practice?: string) => {
  await page.getByLabel('Filament').selectOption({ label: filament })
  await page.getByLabel('Printer', { exact: true }).selectOption({
    label: await page.getByLabel('Printer', { exact: true }).locator('option', { hasText: printer }).innerText(),
  })
  if (practice) await page.getByLabel('Practice').selectOption({ label: practice })
}
const line = (page: Page, name: RegExp) => page.getByRole('row', { name })

test('no axe violations on any screen of Equip', async ({ page }) => {
  await page.goto('/equip')
  await expect(page.getByRole('row', { name: /Nozzle temperature/ }).first()).toBeVisible()
  await choose(page, 'PPA-CF20', 'Ribble')
  await axe(page, 'ask')
  await page.getByRole('button', { name: 'Try all of these' }).click()
  await page.getByRole('button', { name: 'Apply as fitted' }).click()
  await expect(page.getByRole('dialog')).toBeVisible()
  await axe(page, 'apply')
  for (const [path, ready] of [
    ['/equip/fleet', 'PA6-CF20'],
    ['/equip/stack', 'On the shelf'],
    ['/equip/materials', 'Practices, side by side'],
    ['/equip/materials?add=1', 'Facts, each with its basis'],
    ['/equip/buy', 'If it is most of the work'],
    ['/equip/stack/2', 'What was changed'],
    ['/equip/stack/new', 'Add a printer'],
  ] as const) {
    await page.goto(path)
    await expect(page.getByText(ready).first()).toBeVisible()
    if (path === '/equip/stack/new') await page.getByRole('button', { name: /^Hot machine/ }).click()
    await axe(page, path)
  }
})

test(
  'a stack from a starting stack, the liner stops nylon, an all-metal hotend is tried and applied, and the ' +
    'Floor changes',
  async ({ page }) => {
    await page.goto('/equip/stack/new')
    await page.getByRole('button', { name: /^Open frame/ }).click()
    await page.getByLabel('Name', { exact: true }).fill('Hodder')
    await expect(page.getByLabel('dryer')).toHaveCount(0) // dryers are the shop's
    await page.getByLabel('ventilation').selectOption('particle and carbon filter')
    const liner = page.getByRole('listitem').filter({ hasText: 'PTFE liner to the nozzle' }).getByLabel('Limit, °C')
    await liner.fill('15')
    await expect(page.getByText(/PTFE liner to the nozzle: a limit of 15 °C is below the room's 23 °C/)).toBeVisible()
    await liner.fill('warm')
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await expect(page.getByText('Enter a number').first()).toBeVisible()
    await expect(liner).toHaveValue('warm')
    await liner.fill('240')
    await page
      .getByRole('listitem')
      .filter({ hasText: 'bead thermistor' })
      .getByRole('button', { name: /^Without/ })
      .click()
    await expect(page.getByText(/has no temperature sensor/)).toBeVisible()
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await expect(page).toHaveURL(/\/stack\/new/)
    await page.getByLabel('Add a part').selectOption('bead thermistor, 12-bit reading')
    await page.getByRole('button', { name: 'Add it' }).click()
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await expect(page.getByRole('status').filter({ hasText: 'Printer Hodder: saved' })).toBeVisible()

    await page.getByRole('link', { name: 'Ask for a job' }).click()
    await choose(page, 'PA6-CF20', 'Hodder', 'open frame')
    await expect(
      page.getByRole('status').filter({
        hasText:
          /PA6-CF20 does not run on Hodder as it is: the limit of the PTFE liner to the nozzle is 230 °C, it needs 260 °C/,
      }),
    ).toBeVisible()
    await expect(line(page, /Nozzle temperature.*260 °C 230 °C −30 °C PTFE liner/)).toBeVisible()
    const swaps = page.getByRole('list', { name: 'Swaps' })
    await expect(swaps.getByRole('listitem')).toHaveCount(3)
    await swaps.getByRole('checkbox', { name: /all-metal heat break and take the liner out/ }).check()
    await expect(page.getByText('With these it does not run yet. Nothing is stored.')).toBeVisible()
    await expect(line(page, /Nozzle hardness|Nozzle: /).first()).toBeVisible()
    await expect(page.getByText(/PTFE liner/).filter({ hasNotText: 'take the liner out' })).toHaveCount(0)
    await page.reload()
    await choose(page, 'PA6-CF20', 'Hodder', 'open frame')
    await expect(line(page, /PTFE liner/).first()).toBeVisible() // nothing was stored
    await page.getByRole('button', { name: 'Try all of these' }).click()
    await expect(page.getByText('With these it runs. Nothing is stored yet.')).toBeVisible()
    await page.getByRole('button', { name: 'Apply as fitted' }).click()
    const dialog = page.getByRole('dialog')
    await expect(dialog.getByText(/Nozzles shear off in the block/)).toBeVisible()
    await expect(dialog.getByText(/never above the maker's value/)).toBeVisible()
    await dialog.getByRole('button', { name: 'Apply' }).click()
    await expect(
      page.getByRole('status').filter({ hasText: /Hodder changed. Now: nozzle 290 °C \(firmware ceiling\)/ }),
    ).toBeVisible()
    await expect(page.getByRole('status').filter({ hasText: 'PA6-CF20 runs on Hodder.' })).toBeVisible()

    await page.goto('/')
    await expect(
      page.getByRole('region', { name: 'Hodder' }).getByRole('img', { name: /nozzle: limit 290 °C, firmware ceiling/ }),
    ).toBeVisible()
    await page.goto('/equip/stack')
    await expect(
      page
        .getByRole('region', { name: 'On the shelf' })
        .or(page.locator('section', { hasText: 'On the shelf' }))
        .getByText('PTFE liner to the nozzle'),
    ).toBeVisible()
    await page.getByRole('link', { name: /^Hodder/ }).click()
    await page.getByRole('button', { name: /^Strike out/ }).click()
    await page.getByLabel('Reason').fill('fitted to another printer')
    await page.getByRole('dialog').getByRole('button', { name: 'Strike out', exact: true }).click()
    await expect(page.getByText(/Struck out by .*: fitted to another printer/)).toBeVisible()
    await expect(page.getByRole('cell', { name: 'PTFE liner to the nozzle', exact: true })).toBeVisible()
  },
)

test(
  'what the demo shows: sensor and PPS, PETG parts, two schools of polycarbonate, bend and dryer ' + 'for PPA-CF',
  async ({ page }) => {
    await page.goto('/equip')
    await choose(page, 'PPS-CF15', 'Ribble')
    await expect(line(page, /325 °C 290 °C −35 °C bead thermistor/)).toBeVisible()
    await expect(page.getByText('licensed electrician').first()).toBeVisible()
    await choose(page, 'PC', 'Wharfe', 'bed at 120')
    await expect(page.getByRole('status').filter({ hasText: 'PC runs on Wharfe.' })).toBeVisible()
    await choose(page, 'PC', 'Wharfe', 'bed at 135 or more')
    await expect(line(page, /Bed ?: short .* 120 °C .*strong bed heater/)).toBeVisible()
    await choose(page, 'PPA-CF20', 'Ribble', 'dried by the book')
    await expect(line(page, /Tightest bend ?: short at least 81 mm 60 mm/)).toBeVisible()
    // one set of dryers for Equip and Prepare: the oven serves every printer
    await expect(line(page, /Dryer.* 100 °C 200 °C .*Oven/)).toBeVisible()
    await choose(page, 'PA6-CF20', 'Ribble', 'enclosed')
    await expect(line(page, /Part in the heat ?: just 65\.\d °C 65 °C −0\.\d °C.*printed idler, PETG/)).toBeVisible()
    await expect(
      page
        .getByRole('status')
        .filter({ hasText: /PA6-CF20 runs on Ribble, just: the limit of the printed idler, PETG is 65 °C/ }),
    ).toBeVisible()
    // before any swap, who takes it as it is
    await choose(page, 'PEEK-CF10', 'Nidd')
    await expect(
      page.getByRole('status').filter({ hasText: /PEEK-CF10 cannot run on Nidd: it needs 90 °C in the chamber/ }),
    ).toBeVisible()
    await expect(page.getByText('No set of swaps makes it run.')).toBeVisible()
    await expect(page.getByRole('link', { name: 'Swale, hot (just)' })).toBeVisible()
    await page.getByRole('link', { name: 'Calder', exact: true }).click()
    await expect(page.getByRole('status').filter({ hasText: 'PEEK-CF10 runs on Calder.' })).toBeVisible()
    // the window's top against the nozzle, with the guard band that its checked sensor leaves
    await expect(page.getByText('Usable here: nozzle 400 to 445 of 400 to 450 °C')).toBeVisible()
  },
)

test("a job file's own setpoints are checked as they are", async ({ page }) => {
  await page.goto('/equip')
  await choose(page, 'PA6-CF20', 'Ribble', 'enclosed')
  await page.getByRole('button', { name: 'Check a job file' }).click()
  await page
    .getByLabel('Job files')
    .setInputFiles({ name: 'hot.gcode', mimeType: 'text/plain', buffer: jobFile({ nozzleC: 295 }) })
  await expect(line(page, /Nozzle temperature ?: short 295 °C 290 °C −5 °C bead thermistor/)).toBeVisible()
  await page.getByRole('button', { name: 'Ask by window instead' }).click()
  await expect(line(page, /Nozzle temperature ?: fine 270 °C 290 °C/)).toBeVisible()
})

test('the fleet: filter, reasons of a cell, suggestion, CSV', async ({ page }) => {
  await page.goto('/equip/fleet')
  await expect(page.getByText(/^Of \d+ pairs \d+ run as they are and \d+ just,/)).toBeVisible()
  await page.getByLabel('Family').selectOption('PPS')
  await expect(page.getByRole('row')).toHaveCount(3)
  await page
    .getByRole('button', { name: 'after changes : PPS on Ribble' })
    .or(page.getByRole('button', { name: /after changes.*PPS on Ribble/ }))
    .first()
    .click()
  const dialog = page.getByRole('dialog')
  await expect(
    dialog.getByText(/PPS does not run on Ribble as it is: the limit of the bead thermistor is 290 °C/),
  ).toBeVisible()
  await expect(dialog.getByText(/changes, .* for parts/)).toBeVisible()
  await dialog.getByRole('link', { name: 'Open the question' }).click()
  await expect(page.getByLabel('Filament').locator('option:checked')).toHaveText('PPS')
  await page.goto('/equip/fleet')
  await page.getByRole('button', { name: 'Suggest one' }).click()
  await expect(page.getByText(/^\s*Give it to (Calder|Swale)/)).toBeVisible()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as CSV' }).click(),
  ])
  const text = await new Response((await download.createReadStream()) as unknown as ReadableStream).text()
  expect(text.split('\n')[0]).toBe('filament,printer,head,practice,verdict,reasons')
  expect(text).toContain('PEEK,Aire,head,hot chamber,cannot,"it needs 90 °C in the chamber')
})

test(
  'materials: the schools side by side, a value with its basis, a contradiction, a practice added and ' + 'withdrawn',
  async ({ page }) => {
    await page.goto('/equip/materials')
    await page.getByRole('link', { name: 'PC', exact: true }).click()
    await expect(page.getByText('2 practices: they differ in bed, warm chamber.')).toBeVisible()
    await page.getByRole('button', { name: 'Edit Nozzle, lowest' }).click()
    await page.getByLabel('Nozzle, lowest, °C').fill('900')
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await expect(page.getByText('At most 550 °C')).toBeVisible()
    await page.getByLabel('Nozzle, lowest, °C').fill('320')
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await expect(page.getByText(/contradict each other/)).toBeVisible()
    await page.getByLabel('Nozzle, lowest, °C').fill('282')
    await page.getByLabel('Basis', { exact: true }).selectOption('data sheet')
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await expect(page.getByRole('row', { name: /Nozzle, lowest 282 °C data sheet/ })).toBeVisible()
    await page.getByRole('button', { name: 'Add a practice' }).click()
    await page.getByLabel('Name of the practice').fill('on a raft')
    await page.getByLabel('A warm chamber').selectOption({ label: 'is needed' })
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await expect(page.getByText('Enter the chamber temperature that is needed')).toBeVisible()
    await page.getByLabel('Chamber, lowest, °C').fill('60')
    await page.getByLabel('Drying, lowest, °C').fill('80')
    await page.getByLabel('Holds on').fill('PEI + glue stick, glass')
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await expect(page.getByText(/^3 practices/)).toBeVisible()
    await page.getByRole('button', { name: 'Edit practice on a raft' }).click()
    await page.getByLabel('Withdrawn: no longer offered').check()
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await expect(page.getByText('Withdrawn: on a raft')).toBeVisible()
  },
)

test('a stack file: saved, read in again, and one with mistakes is refused where they are', async ({ page }) => {
  await page.goto('/equip/stack/2')
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as a file' }).click(),
  ])
  const stack = JSON.parse(
    await new Response((await download.createReadStream()) as unknown as ReadableStream).text(),
  ) as { name: string; restrictions: string[]; parts: { kind: string }[] }
  expect(stack.parts.length).toBeGreaterThan(20)
  type Printers = { printers: { name: string; restrictions: string[] }[] }
  const restrictionsOf = async (name: string) =>
    ((await (await page.request.get('/api/shop')).json()) as Printers).printers.find(p => p.name === name)!.restrictions
  expect(stack.restrictions).toEqual(await restrictionsOf('Ribble'))
  await page.goto('/equip/stack/new')
  const read = (name: string, content: string) =>
    page
      .getByLabel('Read a stack file')
      .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(content) })
  await read('broken.json', '{ "name": ')
  await expect(
    page.getByRole('alert').filter({ hasText: 'broken.json is not a stack file: it is not JSON.' }),
  ).toBeVisible()
  await read('other.json', '[1, 2]')
  await expect(page.getByRole('alert').filter({ hasText: 'it has no heads or no parts' })).toBeVisible()
  await read(
    'strange.json',
    JSON.stringify({ ...stack, name: 'Strange', parts: [...stack.parts, { kind: 'warp drive', head: null }] }),
  )
  await expect(page.getByText('There is no part kind “warp drive”; the catalogue lists them').first()).toBeVisible()
  await read('ribble.json', JSON.stringify({ ...stack, name: 'Irwell', restrictions: ['no camera', 'x'] }))
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('Say what it is not used for', { exact: true })).toBeVisible()
  await expect(page.getByLabel('Restrictions, where jobs are chosen')).toHaveValue('no camera; x')
  await page.getByLabel('Restrictions, where jobs are chosen').fill('no camera; one customer only')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Irwell' })).toBeVisible()
  expect(await restrictionsOf('Irwell')).toEqual(['no camera', 'one customer only'])
})

test("which nozzle to buy: comparison, crossing, advice; prices are the shop's own", async ({ page }) => {
  await page.goto('/equip/buy')
  await expect(page.getByText(/kg of filled filament a month .* costs least/)).toBeVisible()
  await expect(
    page.getByText('If filled filament is occasional (half a kilogram a year), hardened steel 0.4 is plenty.'),
  ).toBeVisible()
  await expect(page.getByRole('img', { name: /Crossing at \d+ kg/ })).toBeVisible()
  await page.getByLabel('Filled filament a month, kg').fill('0,02')
  await expect(page.getByText(/At 0.02 kg of filled filament a month hardened steel 0.4 costs least/)).toBeVisible()
  await page.getByLabel('Filled filament a month, kg').fill('-3')
  await expect(page.getByText('More than 0 kg')).toBeVisible()
  await page.getByRole('button', { name: 'Edit nozzle prices' }).click()
  await page.getByLabel('Hardened steel, price').fill('x')
  await page.getByRole('dialog').getByRole('button', { name: 'Save' }).click()
  await expect(page.getByText(/Not a number/)).toBeVisible()
  await page.getByLabel('Hardened steel, price').fill('31')
  await page.getByRole('dialog').getByRole('button', { name: 'Save' }).click()
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await expect(page.getByRole('row', { name: /hardened steel 0.4.* 31 / })).toBeVisible()
})

test('keyboard only: ask, try, apply', async ({ page }) => {
  await page.goto('/')
  await expect(page.getByRole('heading', { name: 'Aire' })).toBeVisible()
  await page.keyboard.press('1')
  await expect(page).toHaveURL(/\/equip$/)
  await page.getByLabel('Filament').focus()
  await page.keyboard.type('PETG-GF')
  await page.keyboard.press('Tab')
  await page.keyboard.press('Tab')
  await page.keyboard.type('Nidd')
  await expect(
    page
      .getByRole('status')
      .filter({ hasText: /PETG-GF10 does not run on Nidd as it is: glass fibre wears a plated copper nozzle fast/ }),
  ).toBeVisible()
  for (let i = 0; i < 60; i++) {
    await page.keyboard.press('Tab')
    if (await page.evaluate(() => document.activeElement?.textContent?.trim() === 'Try all of these')) break
  }
  await page.keyboard.press('Enter')
  await expect(page.getByText('With these it runs. Nothing is stored yet.')).toBeVisible()
  for (let i = 0; i < 60; i++) {
    await page.keyboard.press('Shift+Tab')
    if (await page.evaluate(() => document.activeElement?.textContent?.trim() === 'Apply as fitted')) break
    await page.keyboard.press('Tab')
    await page.keyboard.press('Tab')
  }
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog')).toBeVisible()
  await expect(page.getByRole('dialog').getByLabel('What was done')).toBeFocused()
  await page.keyboard.press('Escape') // out of the field
  await expect(page.getByRole('dialog')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
})

for (const width of [820, 390])
  test(`at ${width} px nothing of Equip is wider than the screen`, async ({ page }) => {
    await page.setViewportSize({ width, height: 1000 })
    for (const path of ['/equip', '/equip/fleet', '/equip/stack', '/equip/stack/2', '/equip/materials', '/equip/buy']) {
      await page.goto(path)
      await expect(page.getByRole('navigation', { name: 'Equip' })).toBeVisible()
      await expect(page.locator('main .sheet:visible').first()).toBeVisible()
      await fitsAcross(page)
    }
  })
