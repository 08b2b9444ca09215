/** Change: a swap from the gauge to "ready", resumed by the next shift; tags, notes, a commissioning. */
import type { Page } from '@playwright/test'
import { onOwnDemo } from './own-demo'
import { axe, expect } from './support'

const test = onOwnDemo('change')
const card = (page: Page) => page.locator('form').filter({ has: page.getByText(/^Step \d+ of \d+$/) })
const row = (page: Page, printer: string) => page.locator(`[data-printer="${printer}"]`)
const said = (page: Page, text: RegExp) => page.getByRole('status').filter({ hasText: text })
const actAs = (page: Page, id: number) =>
  page.context().addCookies([{ name: 'iron-nozzle-person', value: String(id), url: page.url() }])
const stepOf = (page: Page, title: RegExp) => {
  const words = title.source.replace(/^\^/, '')
  return {
    heading: card(page).getByRole('heading', { name: title }),
    button: card(page).getByRole('button', { name: new RegExp(`^(Done|It is there|It is recorded).*(${words})`) }),
  }
}
/** Presses the button of the step of that title, once it is shown. */
async function press(page: Page, title: RegExp): Promise<void> {
  await expect(stepOf(page, title).heading).toBeVisible({ timeout: 30_000 })
  await stepOf(page, title).button.click()
}
/** Ticks it: presses again, as a person does, where the printer was not heard for a moment. */
async function tick(page: Page, title: RegExp): Promise<void> {
  await press(page, title)
  const { heading, button } = stepOf(page, title)
  await expect(async () => {
    const gone = await heading.waitFor({ state: 'hidden', timeout: 4000 }).then(
      () => true,
      () => false,
    )
    if (!gone) await button.click({ timeout: 2000 })
    expect(gone).toBe(true)
  }).toPass({ timeout: 60_000 })
}
async function heat(page: Page, c: number): Promise<void> {
  const panel = page.getByText("The stand-in's panel")
  if (!(await page.getByLabel('nozzle, °C').isVisible())) await panel.click()
  await page.getByLabel('nozzle, °C').fill(String(c))
  await page.getByRole('button', { name: 'Set nozzle' }).click()
}

test('from the nozzle on the strip through the whole swap to ready, by the stand-in’s temperatures', async ({
  page,
}) => {
  test.setTimeout(240_000)
  await page.setViewportSize({ width: 820, height: 1180 })
  await page.goto('/change')
  await expect(row(page, 'Ribble')).toBeVisible()
  await page.keyboard.press('/')
  await page.keyboard.type('swap Ribble')
  await expect(page.getByText('Swap on Ribble, step by step: N-014 out')).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(
    said(page, /^N-014 comes off, turned at 260 °C; take N-032, hardened steel 0\.4\. Good for PA6-CF20/),
  ).toBeVisible()
  await axe(page, 'swap a nozzle')
  await page.getByRole('button', { name: 'Begin the swap' }).click()
  await expect(
    said(page, /^Ribble is not ready\. Swap on Ribble: N-014 out, N-032 in: 0 of \d+ steps done/),
  ).toBeVisible()
  await card(page)
    .getByLabel(/whole length by caliper/)
    .fill('nonsense')
  await press(page, /^Take N-032/)
  await expect(card(page).getByText(/^Not a number/)).toBeVisible()
  await card(page)
    .getByLabel(/whole length by caliper/)
    .fill('14,9')
  await press(page, /^Take N-032/)
  await expect(page.getByText(/14\.9 mm is far from it\. Is it this nozzle/)).toBeVisible()
  await card(page)
    .getByLabel(/whole length by caliper/)
    .fill('12,98')
  await page.reload()
  // what was typed outlasts a reload
  await expect(card(page).getByLabel(/whole length by caliper/)).toHaveValue('12.98')
  await card(page)
    .getByLabel(/whole length by caliper/)
    .fill('12,7')
  await tick(page, /^Take N-032/)
  await tick(page, /^Raise Z/)
  await tick(page, /^Block up/)
  await tick(page, /^Eye protection/)
  await axe(page, 'a step that waits')
  // cold: the tick is refused, and says what it waits for
  await press(page, /^Set the nozzle to 260/)
  await expect(
    card(page)
      .getByText(/^wait: \d+ of 260 °C/)
      .first(),
  ).toBeVisible()
  await heat(page, 260)
  await expect(
    card(page)
      .getByText(/^The nozzle shows 2\d\d °C: it is there/)
      .first(),
  ).toBeVisible({ timeout: 40_000 })
  await tick(page, /^Set the nozzle to 260/)
  await tick(page, /^Unload/)
  await tick(page, /^Motion off/)
  await tick(page, /^Turn N-014 out/)
  // another device of the next shift sees it where it was left, and goes on
  const other = await page.context().newPage()
  await other.goto(page.url())
  await tick(other, /^Look up/)
  await expect(card(page).getByRole('heading', { name: /^Turn N-032 in/ })).toBeVisible()
  await other.close()
  await tick(page, /^Turn N-032 in/)
  await tick(page, /^Tighten it hot/)
  await heat(page, 270)
  await expect(
    card(page)
      .getByText(/^The nozzle shows 2(6[789]|7\d) °C/)
      .first(),
  ).toBeVisible({ timeout: 40_000 })
  await tick(page, /^Set 270 °C/)
  await tick(page, /^Look for leaks/)
  await tick(page, /^Tools and block out/)
  await expect(card(page).getByText('The new one is 0.22 mm longer: the head must stop 0.22 mm higher.')).toBeVisible()
  await card(page)
    .getByLabel(/which is further from the bed/)
    .selectOption({ label: 'The larger number' })
  await card(page)
    .getByLabel(/^Z number until now/)
    .fill('-1,5')
  await expect(card(page).getByText(/^Set Z to -0\.28 first: 1 mm too high/)).toBeVisible()
  await press(page, /^Set Z by feeler/)
  await expect(card(page).getByText('Enter it')).toBeVisible()
  await card(page)
    .getByLabel(/^Z number now/)
    .fill('-1,31')
  await tick(page, /^Set Z by feeler/)
  await tick(page, /^Level it hot/)
  await tick(page, /^Calibrate the probe/)
  await card(page).getByLabel('What runs from it now').selectOption({ index: 1 })
  await tick(page, /^Load, and purge/)
  await page.goto('/prepare/check?printer=Ribble')
  await page.goto('/change')
  await expect(row(page, 'Ribble')).toContainText(/18 of 19 steps done/)
  await row(page, 'Ribble').getByRole('link', { name: 'Go on with it' }).click()
  await tick(page, /^Watch a first layer/)
  await page.getByRole('button', { name: 'Ribble is ready' }).click()
  await expect(page.getByText('Ribble is ready: N-032 fitted, Z and what was purged are written down.')).toBeVisible()
  await expect(said(page, /^Swap on Ribble.*Ready: Day technician/)).toBeVisible()
  await page.goto('/inspect/N-032')
  await expect(page.getByText('Fitted to Ribble').first()).toBeVisible()
})

test('paused by the night shift: not ready wherever it is asked, its note signed, taken back, stopped', async ({
  page,
}) => {
  await page.goto('/')
  await expect(page.getByText(/^Stop at .*: Out of service: the hotend fan stalls now and then/)).toBeVisible()
  await expect(page.getByRole('region', { name: 'Swale' }).getByText('not ready')).toBeVisible()
  const swale = (await (await page.request.get('/api/equip')).json()) as { printers: { id: number; name: string }[] }
  await page.goto(`/equip?printer=${swale.printers.find(p => p.name === 'Swale')!.id}`)
  await expect(
    page.getByText(/^Not ready: Swap on Swale · hot: N-027 out, N-028 in is under way, \d+ of \d+ steps/),
  ).toBeVisible()
  await page.goto('/change?printer=Swale')
  await axe(page, 'change')
  await row(page, 'Swale')
    .getByRole('button', { name: /^I have read it/ })
    .click()
  await expect(page.getByText('Swale: read and signed by Day technician.')).toBeVisible()
  await row(page, 'Swale').getByRole('link', { name: 'Go on with it' }).click()
  await expect(card(page).getByRole('heading', { name: /^Turn N-028 in/ })).toBeVisible()
  await page.getByRole('button', { name: /^Take it back/ }).click()
  await page.getByLabel('Reason').fill('residue is still in there')
  await page.getByRole('dialog').getByRole('button', { name: 'Strike out' }).click()
  await expect(card(page).getByRole('heading', { name: /^Look up into the thread/ })).toBeVisible()
  await page.getByRole('button', { name: 'Stop here' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Stop it' }).click()
  await expect(page.getByText('Say why it stops here')).toBeVisible()
  await page.getByLabel('Why it stops').fill('thread of the block is torn')
  await page.getByRole('dialog').getByRole('button', { name: 'Stop it' }).click()
  await expect(said(page, /Stopped: Day technician/)).toBeVisible()
  await page.goto('/change?printer=Swale')
  await expect(row(page, 'Swale')).toContainText('no nozzle in: thread of the block is torn')
  await expect(row(page, 'Swale')).toContainText('hot: no nozzle')
})

test('tagged out and returned, each proof in words; a note that its writer cannot sign', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await page.goto('/change?printer=Nidd')
  await row(page, 'Nidd')
    .getByRole('button', { name: /^Out of service/ })
    .click()
  await page.getByRole('dialog').getByRole('button', { name: 'Out of service' }).click()
  await expect(page.getByText('Say why it must not run')).toBeVisible()
  await page.getByLabel('Why it must not run').fill('frayed wire at the bed')
  await page.getByRole('button', { name: 'the independent cut-out trips' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Out of service' }).click()
  await expect(row(page, 'Nidd')).toContainText('Out of service: frayed wire at the bed')
  await row(page, 'Nidd').getByRole('button', { name: 'Prove it and put it back' }).click()
  await page.getByRole('button', { name: 'Back into service' }).click()
  await expect(page.getByText('Say how it was proved')).toBeVisible()
  await page.getByLabel('the independent cut-out trips').fill('tripped at 128 °C, bed held at full power')
  await page.getByRole('button', { name: 'Back into service' }).click()
  await expect(page.getByText('Nidd is back in service. Take the tag off it.')).toBeVisible()
  await row(page, 'Nidd')
    .getByRole('button', { name: /^Leave a note/ })
    .click()
  await page.getByLabel('What the next shift must know').fill('belt tightened, watch the first hour')
  await page.getByRole('button', { name: 'Leave the note' }).click()
  await row(page, 'Nidd')
    .getByRole('button', { name: /^I have read it/ })
    .click()
  await expect(page.getByText(/^You wrote it: the next shift signs it/)).toBeVisible()
  await actAs(page, 2)
  await page.reload()
  await row(page, 'Nidd')
    .getByRole('button', { name: /^I have read it/ })
    .click()
  await expect(page.getByText('Nidd: read and signed by Night technician.')).toBeVisible()
  const wide = await page.evaluate(() => document.documentElement.scrollWidth)
  expect(wide, 'no sideways scrolling').toBeLessThanOrEqual(390)
})

test('a commissioning under way: a tick alone proves no cut-out', async ({ page }) => {
  await page.goto('/change/commission?printer=Lune')
  await axe(page, 'commissioning')
  await page.getByRole('link', { name: 'Go on with it' }).click()
  // steps of the hand may go on in any order: the wiring is chosen, and says who
  await page.getByRole('button', { name: 'Wiring', exact: true }).click()
  await press(page, /^Wiring/)
  await expect(card(page).getByText('Enter it')).toBeVisible()
  await card(page)
    .getByLabel(/^Who (looked it over|wired and tested it)/)
    .fill('the night technician')
  await tick(page, /^Wiring/)
  await expect(page.locator('[data-step="wiring"]')).toHaveAttribute('data-done', 'true')
  await expect(page.locator('[data-step="heat 0"]')).toHaveAttribute('data-done', 'false')
  await expect(page.getByRole('button', { name: /^Prove it/ })).toHaveCount(0)
})

test('after the print: off glass while it is warm, by a timer that the Floor shows', async ({ page }) => {
  await page.setViewportSize({ width: 820, height: 1180 })
  await page.goto('/change/cool')
  await page.getByLabel('Printer').selectOption({ label: 'Calder' })
  await expect(said(page, /^How thick is its thickest place/)).toBeVisible()
  await page.getByLabel('Thickest place, mm').fill('3000')
  await page.getByRole('button', { name: 'The print is over: start the timer' }).click()
  await expect(page.getByText(/^At most 300/)).toBeVisible()
  await page.getByLabel('Thickest place, mm').fill('24')
  await expect(said(page, /^Hold bed and chamber \d+ min\..*°C an hour at most, lid shut/)).toBeVisible()
  await axe(page, 'after the print')
  await page.getByRole('button', { name: 'The print is over: start the timer' }).click()
  await expect(page.locator('[data-cools="relay base"]')).toContainText('to go')
  await page.goto('/')
  await page
    .getByRole('region', { name: 'Calder' })
    .getByRole('link', { name: /^cools,/ })
    .click()
  await page.getByRole('button', { name: /^It is off/ }).click()
  await expect(page.getByText('relay base is off Calder.')).toBeVisible()
  await expect(page.locator('[data-cools="relay base"]')).toHaveCount(0)
})
