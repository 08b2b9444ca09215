/**
 * Prepare on the demo shop: dry, soak, check, log the run, the clock; purging, annealing; the stand-ins; keyboard;
 * trouble.
 */
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { freePort } from '../../scripts/lib/postgres.mjs'
import { serve } from './global-setup'
import { axe, expect, fitsAcross, servers, test } from './support'

/** A datetime-local value so many hours ago, in the browser's own zone. */
const hoursAgo = (page: Page, h: number) =>
  page.evaluate(n => {
    const d = new Date(Date.now() - n * 3_600_000),
      p = (x: number) => String(x).padStart(2, '0')
    return `${d.getFullYear()}-${p(d.getMonth() + 1)}-${p(d.getDate())}T${p(d.getHours())}:${p(d.getMinutes())}`
  }, h)
const said = (page: Page, text: string | RegExp) =>
  expect(page.getByRole('status').filter({ hasText: text }).first()).toBeVisible()
const optionLike = async (page: Page, id: string, start: string) => {
  await expect(page.locator(`${id} option`, { hasText: start }).first()).toBeAttached()
  await page.selectOption(
    id,
    (await page.locator(`${id} option`).allTextContents()).find(t => t.startsWith(start))!,
  )
}

test('from a wet spool to a logged run: dry, soak, check, run, clock', async ({ page }) => {
  test.setTimeout(300_000) // the whole path in one walk
  await page.goto('/prepare')
  await expect(page.getByText(/S-01 on Ribble/).first()).toBeVisible()
  await page.getByRole('link', { name: 'S-03', exact: true }).click()
  await said(page, /S-03 is too wet: 2\.\d\d to 2\.16 wt% of water, PA6-CF20 usually prints up to 0\.54 wt%/)
  await said(page, /Cabinet at 90 °C gets it to 0\.54 wt% in about .* Clean \(0\.20 wt%\) takes/)
  await expect(page.getByText(/^never/).first()).toBeVisible() // clean, in the small dryer at 55 °C
  await page.getByLabel('Come down to, wt%').fill('0.3')
  await expect(page.getByText('cannot get there').first()).toBeVisible()
  await page.getByLabel('Come down to, wt%').fill('0.54')
  await expect(page.getByText('6 h at 55 °C')).toBeVisible()
  await page.getByRole('button', { name: 'Dry it in Cabinet' }).click()
  await page.getByLabel('Set to, °C').fill('95')
  await expect(page.getByText(/This dryer stops at 90 °C/)).toBeVisible()
  await page.getByLabel('Set to, °C').fill('90')
  await page.getByLabel('Planned for, h').fill('10')
  await page.getByLabel('Began').fill(await hoursAgo(page, 11))
  await page.getByLabel('Began').blur()
  await page.getByRole('button', { name: 'Read the balance' }).click()
  await expect(page.getByLabel('Weighs before, with its spool, g')).toHaveValue(/^1\d\d\d/)
  await page.getByRole('button', { name: 'Start drying' }).click()
  await said(page, /S-03 had its hours in Cabinet by .*: weigh it and end the drying/) // it is over already
  await page.reload()
  await expect(page.getByText(/in Cabinet at 90 °C, since/)).toBeVisible()
  await page.getByRole('button', { name: 'End it' }).click()
  await page.getByLabel('Measured temperature, °C').fill('89')
  await page.getByRole('dialog').getByRole('button', { name: 'Read the balance' }).click()
  await expect(page.getByLabel('Weighs now, with its spool, g')).toHaveValue(/^1\d\d\d/)
  await page.getByRole('button', { name: 'Log the end' }).click()
  await said(page, /it lost .* g, and the shop's wound-spool factor is fitted anew/)
  await page.getByRole('button', { name: 'Into the box' }).click()
  await said(page, 'S-03 into the dry box; its clock runs.')
  await page.getByLabel('Planned print, h').fill('9,5')
  await said(page, /A print of 9\.5 h (stays clean|usually works) fed from the dry box/)

  // soak, with the stand-in heated at its own panel
  await page.goto('/prepare/soak?printer=Ribble')
  await expect(
    page.getByText(
      /Soak at least 20 minutes .*; the air holds 50 °C before that\. Just: the limit of the printed idler/,
    ),
  ).toBeVisible()
  await page.locator('#soak-target').fill('90')
  await said(
    page,
    /It will not hold 90 °C: with the bed at 100 °C the coolest place settles at 66 °C, by its survey .* A bed of 1\d\d °C would bring it, but here the bed stops at 100/,
  )
  await page.locator('#soak-target').fill('50')
  // what a part in the heat does not stand is not started, and which bed it would stand is said
  await page.locator('#soak-bed').fill('110')
  await said(page, /Do not soak it so\. The limit of the .* is \d+ °C, .*; a bed of 9\d °C it stands, 100 perhaps/)
  await expect(page.getByRole('button', { name: 'Start the soak' })).toBeDisabled()
  await page.locator('#soak-bed').fill('100')
  await page.getByText("The stand-in's panel").click()
  await page.locator('#panel-bed').fill('100')
  await page.getByRole('button', { name: 'Set bed' }).click()
  await expect(page.getByText(/of 100$/)).toBeVisible()
  await page.getByRole('button', { name: 'Start the soak' }).click()
  await said(page, /Ribble soaks until/)
  await page.goto('/')
  await expect(page.getByRole('region', { name: 'Ribble' }).getByText(/soaking, \d+ min to go/)).toBeVisible()
  await page.goto('/prepare/soak?printer=Ribble')
  await page.getByRole('button', { name: 'End the soak' }).click()
  await page.getByRole('button', { name: 'Log the end' }).click()
  await said(page, 'soak of Ribble: ended')

  // the check, its answers, and the run logged from it
  await page.goto('/prepare/check?printer=Ribble&spool=S-03')
  await optionLike(page, '#check-job', 'cable-guide_PA6-CF20')
  await expect(page.getByText('Setpoints fit PA6-CF20: nozzle 280, bed 100 °C.')).toBeVisible()
  await expect(page.getByText(/The job takes .* h; the spool stays dry in the dry box/)).toBeVisible()
  await expect(page.getByText('First layer 0.30 mm at 15 mm/s.')).toBeVisible()
  // its bed cut-out did not trip: no tick closes that
  await said(page, /Do not start: Did not trip when tested: the bed thermal cut-out\. Nobody leaves this job alone\./)
  const looked = page.getByRole('button', { name: /^Looked at/ })
  for (let open = await looked.count(); open > 0; open--) {
    await looked.first().click()
    await expect(looked).toHaveCount(open - 1)
  }
  await page
    .getByRole('button', { name: /^Waive/ })
    .first()
    .click()
  await page.getByRole('button', { name: 'Store as it is' }).click()
  await expect(page.getByText('Say why it is waived')).toBeVisible()
  await page.getByLabel('Waived, because').fill('a person stays by it')
  // the rest is waived by a reason that people give
  const waive = page.getByRole('button', { name: /^Waive/ })
  for (let open = await waive.count(); open > 0; open--) {
    await waive.first().click()
    await page
      .getByRole('button', { name: 'agreed with the shop lead' })
      .or(page.getByRole('button', { name: 'gauged right after this job' }))
      .first()
      .click()
    await expect(waive).toHaveCount(open - 1)
  }
  await said(page, /You may press start, with \d waived\./)
  await page.getByRole('button', { name: 'Store the check, then start' }).click()
  await expect(page).toHaveURL(/\/prepare\/check\/\d+$/)
  await expect(page.getByText('Waived: a person stays by it')).toBeVisible()
  await page.getByRole('link', { name: 'Log the run when it is done' }).click()
  await expect(page.getByText('The check before this run')).toBeVisible()
  await expect(page.getByLabel('Spool')).toHaveValue(/S-03/)
  await page.getByRole('button', { name: 'Save the run' }).click()
  // the demo logged as much of the same on this head an hour or two ago
  await expect(page.getByText(/is logged there already: “cable guide”.* Is this another run\?/)).toBeVisible()
  await page.getByRole('button', { name: 'Yes, save it' }).click()
  await said(page, /\+62\.\d g fibre on N-014/)
  await page.goto('/prepare/check')
  await expect(page.getByText(/; logged/).first()).toBeVisible()
  await page.goto('/run') // the tests after this one find the nozzle as the demo left it
  await page
    .getByRole('button', { name: /^Strike out/ })
    .first()
    .click()
  await page.getByLabel('Reason').fill('made by a test')
  await page.getByRole('dialog').getByRole('button', { name: 'Strike out' }).click()
  await said(page, /is struck out and stays readable/)
  await page
    .getByLabel('Strip')
    .or(page.getByPlaceholder(/Scan a tag/))
    .first()
    .fill('spool S-03 out')
  await page.keyboard.press('Enter')
  await said(page, /Spool S-03 .*: out.*: saved/) // not the preview while it is typed
  await page.goto('/prepare/spool/S-03')
  await said(page, /S-03 (is clean|usually prints as it is): .* wt% of water/)
})

test('a profile of another material is caught by name; what a part does not stand cannot be waived', async ({
  page,
}) => {
  await page.goto('/prepare/check?printer=Aire&spool=S-02')
  await optionLike(page, '#check-job', 'bobbin-ring-trial_PLA-CF15')
  await expect(page.getByText(/It looks like a profile for PLA/).first()).toBeVisible()
  await optionLike(page, '#check-job', 'cable-guide_PA6-CF20')
  await expect(page.getByText('This is never waived.').first()).toBeVisible()
  await said(page, /^Do not start:/)
})

test("a probe's file: wrong lines are named and nothing is taken; a good one is fitted and stored", async ({
  page,
}) => {
  const folder = mkdtempSync(join(tmpdir(), 'probe-'))
  const write = (name: string, text: string) => {
    const path = join(folder, name)
    writeFileSync(path, text)
    return path
  }
  await page.goto('/prepare/soak?printer=Wharfe')
  // by default it is what went through last, which the tests before this one may have changed
  await optionLike(page, '#soak-material', 'PA12-CF15')
  await expect(page.getByText(/the practice minimum, because Wharfe has no warm-up record yet/)).toBeVisible()
  await page.getByRole('button', { name: "From a probe's file" }).click()
  await page.getByLabel('Probe file').setInputFiles(write('bad.csv', 'time s,temperature C\n0,23\n30,24,5\nsoon,25\n'))
  await expect(
    page.getByText(
      'Line 3: 3 cells where the heading has 2; a decimal comma in a file separated by commas? Separate by ' +
        'semicolons, or quote the numbers',
    ),
  ).toBeVisible()
  await expect(page.getByText('Line 4: "soon" is not a time')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Save the warm-up' })).toBeDisabled()
  const rows = Array.from(
    { length: 90 },
    (_, i) =>
      `${(i / 2).toString().replace('.', ',')};${(23 + 32 * (1 - Math.exp(-i / 20))).toFixed(1).replace('.', ',')}`,
  )
  await page.getByLabel('Probe file').setInputFiles(write('good.csv', `minutes;chamber °C\n${rows.join('\n')}\n`))
  await said(
    page,
    /90 readings \(minutes, chamber °C\)\. It settles at 5[45]\.\d °C with a time constant of 10\.\d min/,
  )
  await page.getByLabel('Bed was at, °C').fill('90')
  await page.getByRole('button', { name: 'Save the warm-up' }).click()
  await said(page, /Warm-up of Wharfe: settles at 55 °C/)
})

test('change filament and anneal: temperature both stand, the log, schools, a timer that is ended', async ({
  page,
}) => {
  await page.goto('/prepare/changeover')
  await optionLike(page, '#purge-head', 'Nidd')
  await optionLike(page, '#purge-from', 'PC')
  await page.selectOption('#purge-to', 'ABS')
  await said(page, 'Purge at 260 °C: there both PC and ABS flow.')
  await page.getByRole('button', { name: 'Log the purge' }).click()
  await said(page, /now holds ABS; what went through before no longer decides how hot it is swapped/)
  await optionLike(page, '#purge-from', 'PEEK')
  await page.selectOption('#purge-to', 'PLA')
  await said(page, /stops at 290 °C\. Change the hotend/)
  await page.goto('/prepare/anneal')
  await said(page, /h in Oven: up at 60 °C an hour/)
  await page.getByLabel('Hold at, °C').fill('210')
  const news = page.waitForResponse(r => new URL(r.url()).pathname === '/api/shop')
  await page.request.post('/api/people', {
    data: { name: `Helper ${Date.now()}`, role: 'technician' },
    headers: { 'idempotency-key': `helper-${Date.now()}` },
  })
  await (await news).finished() // news of a save elsewhere leaves what is typed
  await said(page, /melts at 220 °C: 210 °C would slump it/)
  await expect(page.getByText('Dust of quartz sand')).toBeHidden()
  await optionLike(page, '#anneal-material', 'PC')
  await expect(page.getByText('It grows no crystals').first()).toBeVisible()
  await page.getByLabel('Hold at, °C').fill('150')
  await said(page, /amorphous and softens at 147 °C: at 150 °C it would sag/)
  await page.getByLabel('The part', { exact: true }).selectOption('is packed in sand')
  await expect(page.getByText('Dust of quartz sand')).toBeVisible()
  await expect(page.getByText('Damp sand turns its water to steam')).toBeVisible()
  await said(page, /at 150 °C, and down as slowly/)
  await optionLike(page, '#anneal-material', 'PA6-CF20')
  await expect(page.getByLabel('The part', { exact: true })).toHaveValue('lies free')
  await page.getByRole('button', { name: /Take it.*hot/ }).click()
  await page.getByLabel('Part', { exact: true }).fill('bobbin rings')
  await page.getByRole('button', { name: 'Start the anneal' }).click()
  await expect(page.getByText(/heat up, the oven should show 2\d °C/)).toBeVisible()
  await page.getByRole('button', { name: /End it.*bobbin rings/ }).click()
  await page.getByRole('button', { name: 'Log the end' }).click()
  await said(page, 'bobbin rings: ended')
})

test('Prepare is free of accessibility faults, and fits a tablet and a phone', async ({ page }) => {
  for (const path of [
    '/prepare',
    '/prepare/spool/S-02',
    '/prepare/soak',
    '/prepare/check',
    '/prepare/changeover',
    '/prepare/anneal',
  ]) {
    await page.setViewportSize({ width: 1280, height: 800 })
    await page.goto(path)
    await expect(page.getByRole('navigation', { name: 'Prepare' })).toBeVisible()
    await expect(page.locator('main .animate-pulse')).toHaveCount(0)
    await page.waitForLoadState('networkidle')
    await axe(page, path)
    for (const width of [820, 390]) {
      await page.setViewportSize({ width, height: 844 })
      await fitsAcross(page)
    }
  }
})

test('keyboard only: to Prepare, into a spool, into the box; nonsense stays typed and is named', async ({ page }) => {
  await page.goto('/')
  await expect(page.getByRole('heading', { name: 'Aire' })).toBeVisible()
  await page.keyboard.press('2')
  await expect(page).toHaveURL(/\/prepare$/)
  await page.getByRole('link', { name: 'S-18', exact: true }).focus()
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Enter something else' }).focus()
  await page.keyboard.press('Enter')
  const humidity = page.getByLabel('Humidity there, %')
  await humidity.focus()
  await page.keyboard.type('130')
  await page.keyboard.press('Enter')
  await expect(page.getByText('At most 100 %')).toBeVisible()
  await expect(humidity).toHaveValue('130')
  await humidity.fill('damp')
  await expect(page.getByText(/Not a number/)).toBeVisible()
  await humidity.fill('65')
  await page.keyboard.press('Enter')
  await said(page, 'S-18: out in the room.')
})

test('server away while a drying is started: kept, and it begins once; a printer that is gone shows no number', async ({
  page,
}) => {
  const port = await freePort()
  const own = { child: await serve(servers().demo.url, port, { PRINTER_LINKS: '{"Ribble":"127.0.0.1:9"}' }) }
  await page.goto(`http://127.0.0.1:${port}/prepare/soak?printer=Ribble`)
  await expect(page.getByText(/Connection lost since .* No readings until it is back/)).toBeVisible()
  await page.goto(`http://127.0.0.1:${port}/prepare/spool/S-04`)
  await page.getByRole('button', { name: 'Dry it in Bench dryer' }).click()
  await page.getByLabel('Note').fill('begun while the server was away')
  own.child.kill('SIGKILL')
  await page.getByRole('button', { name: 'Start drying' }).click()
  await said(page, 'Kept here; it is sent when the server answers.')
  own.child = await serve(servers().demo.url, port)
  await page.reload()
  await expect(page.getByRole('button', { name: 'all entries saved' })).toBeVisible({ timeout: 45_000 })
  await page.reload()
  await expect(page.getByText('begun while the server was away')).toHaveCount(1)
  own.child.kill('SIGKILL')
})
