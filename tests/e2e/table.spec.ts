/** A whole table on its way in: nonsense, what is put right in place, a reload, the keyboard, a narrow screen. */
import type { Page } from '@playwright/test'
import { axe, expect, test } from './support'

const field = (page: Page) => page.getByLabel(/^The table of/)
/** As typed: it is read when the field is left. */
async function type(page: Page, text: string): Promise<void> {
  await field(page).fill(text)
  await field(page).press('Tab')
}

test('nonsense is said with what to do, and the text stays', async ({ page }) => {
  test.setTimeout(240_000) // two thousand lines are typed and taken back
  await page.goto('/stores/table?of=people')
  const file = page.getByLabel('File of the table')
  const choose = (name: string, bytes: number[]) =>
    file.setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(bytes) })
  await choose('people.xlsx', [0x50, 0x4b, 3, 4, 0, 0])
  await expect(page.getByText('people.xlsx is a workbook: copy its cells and paste them here')).toBeVisible()
  await choose('people.bin', [1, 0, 0, 2])
  await expect(page.getByText('people.bin is no text')).toBeVisible()
  await type(page, 'name,role\n"Early technician,technician')
  await expect(page.getByText('Line 2: a quotation mark that is not closed')).toBeVisible()
  await expect(field(page)).toHaveValue('name,role\n"Early technician,technician')
  await type(page, '[{"name":')
  await expect(page.getByText(/begins like JSON and is none/)).toBeVisible()
  await type(page, 'people\n' + Array.from({ length: 2001 }, (_, i) => `P${i}`).join('\n'))
  await expect(page.getByText('2002 lines: at most 2000 at once. Paste the table in parts.')).toBeVisible()
  await type(page, 'Colour;Job\nred;technician')
  await expect(page.getByText('No column is taken for the name')).toBeVisible()
  await axe(page, 'a table without its names')
  await page.getByRole('button', { name: 'Back to the text' }).click()
  await expect(field(page)).toHaveValue('Colour;Job\nred;technician')
})

test('put right in its cell or left out, kept over a reload; Latin-1; saved once', async ({ page }) => {
  await page.goto('/stores/table?of=people')
  // ISO 8859-1: 0xFC is ü
  const text = Buffer.from(
    'Name;Role\nNachtsch\u00fcler;Lead\n;lead\nEarly technician;chief\nDay technician;\n',
    'latin1',
  )
  await page.getByLabel('File of the table').setInputFiles({ name: 'people.csv', mimeType: 'text/csv', buffer: text })
  await expect(page.getByText('1 person to add, 1 here already, and 2 lines to put right or leave out.')).toBeVisible()
  await expect(page.getByText('“chief” is none of: technician, lead')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Add 1 person' })).toBeDisabled()
  await page.getByRole('checkbox', { name: 'take line 3' }).uncheck()
  await page.getByLabel('Line 4, Role').fill('lead')
  await page.getByLabel('Line 4, Role').press('Tab')
  await expect(page.getByText('2 people to add and 1 here already.')).toBeVisible()
  await page.reload()
  await expect(page.getByText('2 people to add and 1 here already.')).toBeVisible()
  await expect(page.getByLabel('Line 4, Role')).toHaveValue('lead')
  await page.getByRole('button', { name: 'Add 2 people' }).click()
  await expect(page.getByRole('main').getByText('2 people added, 1 was here already.')).toBeVisible()
  await page.goto('/stores?tab=Shop')
  await expect(page.getByRole('button', { name: /^Nachtschüler\s?, edit/ })).toBeVisible()
})

test('one after the other: the tag goes on, type and material stay', async ({ page }) => {
  await page.goto('/stores?tab=Spools')
  await page.getByRole('button', { name: 'Add a spool' }).click()
  const sheet = page.getByRole('dialog')
  const tag = sheet.getByLabel('Tag')
  const first = await tag.inputValue()
  expect(first).toMatch(/^S-\d\d$/)
  await sheet.getByLabel('Material').selectOption({ label: 'PETG' })
  await sheet.getByLabel('Empty spool, g').fill('231')
  await sheet.getByLabel('Note').fill('the first')
  const more = sheet.getByRole('button', { name: 'Save and add another' })
  await more.click()
  await expect(page.getByText(`Spool ${first}: saved`)).toBeVisible()
  const second = `S-${String(Number(first.slice(2)) + 1).padStart(2, '0')}`
  await expect(tag).toHaveValue(second)
  await expect(tag).toBeFocused()
  await expect(sheet.getByLabel('Empty spool, g')).toHaveValue('231')
  await expect(sheet.getByLabel('Note')).toHaveValue('')
  // what is wrong is said, and nothing is lost
  await tag.fill(first)
  await more.click()
  await expect(sheet.getByText(`There is already a spool ${first}`)).toBeVisible()
  await tag.fill(second)
  await sheet.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(sheet).toHaveCount(0)
  await expect(page.getByText(`Spool ${second}: saved`)).toBeVisible()
})

test('by the keyboard alone', async ({ page }) => {
  await page.goto('/stores/table?of=types')
  await field(page).focus()
  await page.keyboard.type('name')
  await page.keyboard.press('Enter')
  await page.keyboard.type('ruby tip 0.35')
  await page.keyboard.press('Tab')
  const add = page.getByRole('button', { name: 'Add 1 nozzle type' })
  await expect(add).toBeEnabled()
  for (let i = 0; i < 30 && !(await add.evaluate(b => b === document.activeElement)); i++)
    await page.keyboard.press('Tab')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('main').getByText('1 nozzle type added.')).toBeVisible()
})

for (const width of [820, 390])
  test(`at ${width} px the page is not wider than the screen`, async ({ page }) => {
    await page.setViewportSize({ width, height: 800 })
    await page.goto('/stores/table?of=spools')
    await type(page, 'Spool;Filament;Net (kg);Empty spool;On the balance\nS-900;PETG;1;210;500\nS-901;PETG;1,000;;')
    await expect(page.getByText('S-900, PETG, 290 g left')).toBeVisible()
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(width)
  })
