/** A gauge study by two people and the life of a type, as they are used: by mouse, by the strip, by picture, away. */
import type { Page } from '@playwright/test'
import { onOwnDemo } from './own-demo'
import { axe, expect } from './support'

const test = onOwnDemo('study')

const turn = (page: Page) => page.getByRole('status').filter({ hasText: /^Line \d+ of \d+: / })
async function begin(page: Page, name: string, by: string | null, nozzles: string[], rounds: string): Promise<void> {
  await page.goto('/inspect/study')
  await page.getByRole('button', { name: 'Begin a study' }).click()
  const sheet = page.getByRole('dialog')
  await sheet.getByLabel('Name').fill(name)
  if (by) await sheet.getByLabel('Gauged with').selectOption({ label: by })
  await sheet.getByLabel('Rounds').fill(rounds)
  for (const tag of nozzles) await sheet.getByRole('checkbox', { name: tag }).check()
  await axe(page, 'begin a study')
  await sheet.getByRole('button', { name: 'Draw the list' }).click()
  await expect(sheet).toBeHidden()
  await expect(turn(page)).toBeVisible()
}
const boreOf = (text: string) => (text.includes('N-001') ? 0.43 : 0.45)

test('two people, pins: line by line and by the strip; the last line moves what a gauge counts with', async ({
  page,
}) => {
  await page.goto('/inspect/study?study=1')
  await expect(page.getByText(/^Two readings by anybody tell a change of 0\.0\d+ mm: \d/)).toBeVisible()
  await expect(page.getByText(/^Every gauge by pins counts with \d\.\d µm of scatter by this study/)).toBeVisible()
  await expect(page.getByText('Two people give one degree of freedom')).toBeVisible()
  await axe(page, 'study')
  await begin(page, 'Wide hands', null, ['N-001', 'N-003'], '2')
  await expect(page.getByText('Wide hands is being read: 0 of 8 lines.')).toBeVisible()
  await axe(page, 'a line of a study')
  // half a reading is answered at its field, and the typed stays
  const go = page.getByLabel('Goes, mm')
  await go.fill('0,43')
  await page.getByRole('button', { name: 'Save line 1' }).click()
  await expect(page.getByText('A study needs the pin that does not go too')).toBeVisible()
  await page.reload()
  await expect(go).toHaveValue('0.43')
  for (let i = 0; i < 8; i++) {
    await expect(turn(page)).toContainText(`Line ${i + 1} of 8`)
    const text = await turn(page).innerText()
    // the second person finds one step more, and N-001 one step more in the second round
    const isLater = i >= 4 && text.includes('N-001')
    const d = boreOf(text) + (text.includes('Night') ? 0.01 : 0) + (isLater ? 0.01 : 0)
    const [a, b] = [d.toFixed(2), (d + 0.01).toFixed(2)]
    if (i === 1) {
      await expect(go).toBeFocused()
      await page.getByRole('combobox', { name: /^Log or find/ }).fill(`study ${a}-${b}`)
      await expect(page.getByText(/line 2 of 8: .* goes, .* does not/)).toBeVisible()
      await page.keyboard.press('Enter')
      // the strip keeps the focus for its next line
      await expect(page.getByText(/line 2 of 8: .* does not\. 6 lines left\.$/)).toBeVisible()
      await expect(turn(page)).toContainText('Line 3 of 8')
      continue
    }
    await go.fill(a)
    await page.getByLabel('Does not go, mm').fill(b)
    await page.keyboard.press('Enter')
    if (i < 7) await expect(turn(page)).toContainText(`Line ${i + 2} of 8`)
    // what the last one found stays hidden
    if (i === 3) await expect(page.getByRole('cell', { name: 'goes' })).toHaveCount(0)
  }
  await expect(
    page.getByText(/The list is worked off: a gauge by pins counts with \d+(\.\d)? µm of scatter/),
  ).toBeVisible()
  await expect(page.getByText(/^Every gauge by pins counts with/)).toBeVisible()
  await page.getByRole('button', { name: /^Pins, two of us/ }).click()
  await expect(page.getByText('A later study by the same method counts instead.')).toBeVisible()
  // struck out, the one before counts again
  await page
    .getByRole('button', { name: /^Wide hands/ })
    .first()
    .click()
  await page.getByRole('button', { name: 'Strike out Wide hands' }).click()
  await page.getByLabel('Reason').fill('only tried out')
  await page.getByRole('dialog').getByRole('button', { name: 'Strike out' }).click()
  await expect(page.getByText(/^Wide hands is struck out: only tried out/)).toBeVisible()
  await page.getByRole('button', { name: /^Pins, two of us/ }).click()
  await expect(page.getByText(/^Every gauge by pins counts with/)).toBeVisible()
})

test('pictures: a line is measured on the Picture page', async ({ page }) => {
  await begin(page, 'Lens 2', 'pictures by Bench microscope, lens 2', ['N-001', 'N-003'], '2')
  await page.getByRole('link', { name: 'Measure a picture for this line' }).click()
  const box = page.getByRole('region', { name: 'For a gauge study' })
  await expect(box.getByText(/^Line 1 of 8: /)).toBeVisible()
  await expect(box.getByRole('button', { name: 'Measure its picture first' })).toBeDisabled()
  await page.getByRole('button', { name: 'Look through the microscope' }).click()
  await expect(box.getByRole('button', { name: /^Save line 1/ })).toBeEnabled()
  await axe(page, 'picture of a study')
  // the answer comes when the study stands there again, whose list was read before: its turn stays, and what is typed
  let answer = () => {}
  await page.route('**/api/study-readings', async route => {
    const answered = await route.fetch()
    await new Promise<void>(go => (answer = go))
    await route.fulfill({ response: answered })
  })
  const before: unknown = await page.evaluate(async () => (await fetch('/api/studies')).json())
  await page.route('**/api/studies', route => route.fulfill({ json: before }))
  await box.getByRole('button', { name: /^Save line 1: 0\.4\d\d\d mm$/ }).click()
  await expect(box.getByText(/^Line 2 of 8: /)).toBeVisible()
  await box.getByRole('link', { name: 'Back to the study' }).click()
  await expect(page).toHaveURL(/study\?study/)
  await expect(turn(page)).toContainText('Line 2 of 8')
  const value = page.getByLabel('Bore in the picture, mm')
  await value.fill('4.3')
  answer()
  await expect(page.getByRole('button', { name: 'all entries saved' })).toBeVisible()
  await page.unroute('**/api/studies')
  await page.unroute('**/api/study-readings')
  await expect(value).toHaveValue('4.3')
  await value.press('Enter')
  await expect(page.getByText('At most 3 mm')).toBeVisible()
  await value.fill('0.9')
  await value.press('Enter')
  await expect(page.getByText(/^0\.9 mm is far from what its type is, 0\.4 mm\. Is N-00\d in hand\?/)).toBeVisible()
})

test('the life of a type: its sentence, the plot, and each nozzle a link', async ({ page }) => {
  await page.goto('/inspect/types')
  await expect(page.getByText(/^brass 0\.4: one in ten is past its limit after \d+ g of fibre/)).toBeVisible()
  await expect(page.getByText(/^5 nozzles found past the limit/)).toBeVisible()
  await axe(page, 'types')
  await page.getByRole('button', { name: /^hardened steel 0\.4/ }).click()
  await expect(page.getByText(/^hardened steel 0\.4: cannot tell how long it lives: only \d/)).toBeVisible()
  await expect(page.getByText(/went on their forecast/)).toBeVisible()
  await page.getByRole('button', { name: /^brass 0\.4/ }).click()
  const link = page.getByRole('link', { name: /^N-001: found past its limit between/ })
  await link.focus()
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/\/inspect\/N-001$/)
  await page.goto('/equip/buy')
  await page.getByRole('checkbox', { name: 'brass 0.4', exact: true }).check()
  await expect(page.getByText('by 5 of this type that wore out')).toBeVisible()
  await page.getByRole('checkbox', { name: /^lives by what wore out/ }).uncheck()
  await expect(page.getByText('by 5 of this type that wore out')).toBeHidden()
})
