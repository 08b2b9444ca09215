/** Chambers surveyed, enclosures planned and a certificate printed, as a technician does it. */
import type { Page } from '@playwright/test'
import { onOwnDemo } from './own-demo'
import { axe, expect } from './support'

const test = onOwnDemo('chambers')
const sheet = (page: Page) => page.getByRole('dialog')
const said = (page: Page, text: RegExp) => page.getByRole('status').filter({ hasText: text })

test('a survey predicts another bed, state beside state, and a stale one says why', async ({ page }) => {
  await page.goto('/verify/chamber?printer=Ribble')
  await expect(
    said(page, /^Ribble, the bed at 100 °C, lid on, shut: printed idler, PETG, near the top: the air is 66 ± 1 °C/),
  ).toBeVisible()
  await axe(page, 'chamber survey')
  await page.getByLabel('With the bed set to, °C').fill('80')
  await expect(said(page, /^Ribble, the bed at 80 °C.*the air is 5\d ± 1 °C, it may be 65 °C/)).toBeVisible()
  await page.getByLabel('With the bed set to, °C').fill('800')
  await expect(page.getByText('Enter 0 to 300 °C')).toBeVisible()
  await page.getByLabel('With the bed set to, °C').fill('')
  await page.getByRole('button', { name: 'lid on, vent open' }).click()
  await expect(said(page, /^Ribble, the bed at 100 °C, lid on, vent open/)).toBeVisible()
  await expect(page.getByText(/The air changes by \d\.\d ± \d\.\d °C per 100 mm, warmer to the bed/)).toBeVisible()
  await page.getByRole('button', { name: 'Wharfe' }).click()
  await expect(
    said(page, /^Wharfe’s survey does not hold any more: changed since, fans, \d+ \w{3} \d{4}/),
  ).toBeVisible()
})

test('a survey typed: nonsense at its place, one that rises, saved, and struck out', async ({ page }) => {
  await page.goto('/verify/chamber?printer=Wharfe')
  await page.getByRole('button', { name: 'Survey it' }).click()
  await expect(sheet(page)).toBeVisible()
  await axe(page, 'survey a chamber')
  const cell = (label: string) => sheet(page).getByLabel(label, { exact: true })
  const row = async (n: number, values: [string, string, string, string]) => {
    for (const [i, what] of ['minute', 'room, °C', 'P1, °C', 'P2, °C'].entries())
      await cell(`Row ${n}: ${what}`).fill(values[i]!)
  }
  await cell('Bed shows, °C').fill('90')
  await row(1, ['0', '23', '50,1', '46'])
  await row(2, ['10', '23,1', 'x', '49'])
  await expect(sheet(page).getByText('Not a number; for example 0.43 or 0,43')).toBeVisible()
  await row(2, ['10', '23,1', '900', '49'])
  await row(3, ['20', '23', '60', '52'])
  await expect(sheet(page).getByText('Enter -40 to 400 °C')).toBeVisible()
  await row(2, ['10', '23,1', '55', '49'])
  await expect(
    sheet(page).getByText(/P1: still rising at 5\d\.\d °C, by 30 °C an hour: about \d+\.\d °C may/),
  ).toBeVisible()
  // nothing typed is lost over a reload
  await page.reload()
  await page.getByRole('button', { name: 'Survey it' }).click()
  await expect(cell('Row 2: P1, °C')).toHaveValue('55')
  await sheet(page).getByRole('button', { name: 'Save the survey' }).click()
  await expect(sheet(page).getByText(/No probe counts yet, so the limits take nothing/)).toBeVisible()
  await row(1, ['0', '23', '62', '55'])
  await row(2, ['15', '23', '62,1', '55'])
  await row(3, ['30', '23', '62', '55,1'])
  await expect(sheet(page).getByText('P1: steady at 62.0 °C.')).toBeVisible()
  await expect(sheet(page).getByText(/The bed may be set to \d+ °C/)).toBeVisible()
  // by a press on the drawing, seen from the front
  await sheet(page)
    .locator('svg rect.cursor-crosshair')
    .first()
    .click({ position: { x: 20, y: 20 } })
  await expect(sheet(page).getByRole('group', { name: 'Probe 1' }).getByLabel('z, mm')).toHaveValue(/^\d{3}$/)
  await sheet(page).getByRole('button', { name: 'Save the survey' }).click()
  await expect(said(page, /^Wharfe surveyed: near bed and head 58 ± \d % of the way from room to bed/)).toBeVisible()
  await expect(said(page, /^Wharfe, the bed at 90 °C, lid on, shut/)).toBeVisible()
  await page.getByRole('region', { name: 'Surveys' }).getByRole('button', { name: 'Strike out' }).first().click()
  await sheet(page).getByLabel('Reason').fill('the door was ajar')
  await sheet(page).getByRole('button', { name: 'Strike out' }).click()
  await expect(page.getByText('struck out: the door was ajar')).toBeVisible()
})

test('by the thermometer: the stand-in’s probes are put where they are drawn', async ({ page }) => {
  await page.goto('/verify/chamber?printer=Calder')
  await page.getByRole('button', { name: 'Survey it' }).click()
  await sheet(page).getByRole('button', { name: 'Read the thermometer' }).click()
  await expect(sheet(page).getByLabel('Row 1: minute')).toHaveValue('0')
  await expect(sheet(page).getByLabel('Row 1: room, °C')).toHaveValue(/^2[23]/)
  // its chamber is hot; the probe gets there in some seconds
  await expect(async () => {
    await sheet(page).getByRole('button', { name: 'Read the thermometer' }).click()
    await page.waitForTimeout(300)
    const cells = sheet(page).getByLabel(/^Row \d+: P1, °C$/)
    expect(Number(await cells.last().inputValue())).toBeGreaterThan(70)
  }).toPass({ timeout: 20_000, intervals: [1500] })
  await page.keyboard.press('Escape')
})

test('a plan: what is built, what it comes to, the vent that keeps its parts safe, kept', async ({ page }) => {
  await page.goto('/verify/enclosure?printer=Ribble')
  await expect(said(page, /^As planned the air near bed and head comes to \d+ to \d+ °C/)).toBeVisible()
  await expect(said(page, /A fan that draws \d+ to \d+ l\/min out by a thermostat/)).toBeVisible()
  await axe(page, 'enclosure')
  await expect(page.getByText(/One warm-up cannot tell what leaves through the walls/).first()).toBeVisible()
  await page.getByRole('button', { name: 'if lost through gaps' }).click()
  await page.getByLabel('Fan draws out, l/min').fill('120')
  await expect(said(page, /^As planned .* may be \d+ °C\.$/)).toBeVisible()
  await expect(said(page, /A fan that draws/)).toHaveCount(0)
  // a wall of no thickness is named at its field, and the outcome waits
  await page.getByRole('group', { name: 'Wall front' }).getByLabel('thick, mm').first().fill('0')
  await expect(page.getByText('At least 0.1 mm')).toBeVisible()
  await expect(said(page, /One field is not right yet/)).toBeVisible()
  await page.reload()
  await expect(page.getByLabel('Fan draws out, l/min')).toHaveValue('120')
  await page.getByRole('group', { name: 'Wall front' }).getByLabel('thick, mm').first().fill('4')
  await page.getByLabel('Name of the plan').fill('Lined, with a fan')
  await page.getByRole('button', { name: 'Keep the plan' }).click()
  await expect(said(page, /Plan “Lined, with a fan” of Ribble’s enclosure is kept/)).toBeVisible()
  await expect(page.getByRole('button', { name: 'Lined, with a fan' })).toHaveAttribute('aria-pressed', 'true')
  await expect(page.getByLabel('Fan draws out, l/min')).toHaveValue('120')
  // an open frame can be planned too
  await page.getByRole('button', { name: 'Aire' }).click()
  await expect(page.getByText(/These are start values of a box of panels/)).toBeVisible()
  await expect(said(page, /^As planned the air/)).toBeVisible()
})

test('a certificate: a cut-out tested, and one page of paper', async ({ page }) => {
  await page.goto('/verify/certificate?printer=Ribble')
  const paper = page.getByRole('article', { name: 'Certificate of Ribble' })
  await expect(paper).toContainText('The bed thermal cut-out did not trip: do not run it unattended')
  await axe(page, 'certificate')
  // a step that is to prove one leads to it; the button asks which
  await page.goto('/verify/certificate?printer=Ribble&test=hotend%20thermal%20cut-out')
  await expect(sheet(page).getByLabel('What was tested')).toHaveValue('hotend thermal cut-out')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  await expect(page).toHaveURL(/certificate\?printer=Ribble$/)
  await page.getByRole('button', { name: 'Log a cut-out test' }).click()
  await axe(page, 'test a cut-out')
  await sheet(page).getByRole('button', { name: 'Save the test' }).click()
  await expect(sheet(page).getByText('Choose one')).toBeVisible()
  await expect(sheet(page).getByText('Say whether it tripped')).toBeVisible()
  await sheet(page).getByLabel('What was tested').selectOption('bed thermal cut-out')
  await sheet(page).getByLabel('Outcome').selectOption({ label: 'it tripped' })
  await sheet(page).getByLabel('It tripped at, °C').fill('131,5')
  await sheet(page).getByRole('button', { name: 'Save the test' }).click()
  await expect(paper).toContainText('bed thermal cut-out: tripped at 131.5 °C')
  await expect(paper).not.toContainText('did not trip')
  for (const name of ['Ribble', 'Swale', 'Calder', 'Aire']) {
    await page.getByRole('button', { name, exact: true }).click()
    const now = page.getByRole('article', { name: `Certificate of ${name}` })
    await expect(now).toContainText('May be set to')
    await page.emulateMedia({ media: 'print' })
    for (const part of [
      'May be set to',
      'Due',
      'Sensors',
      'Runaway protection and cut-outs',
      'Chamber',
      'Stack:',
      'Signed',
    ])
      await expect(now.getByText(part, { exact: false }).first()).toBeVisible()
    await expect(page.getByRole('button', { name: 'Print' })).toBeHidden()
    const pdf = await page.pdf({ format: 'A4', margin: { top: '12mm', bottom: '12mm', left: '12mm', right: '12mm' } })
    await page.emulateMedia({ media: 'screen' })
    // pages of a PDF, as its own tree of pages counts them
    expect([name, /\/Type\s*\/Pages[^]*?\/Count (\d+)/.exec(pdf.toString('latin1'))?.[1]]).toEqual([name, '1'])
  }
})
