/** Hotends at the bench, in Stores. */
import { axe, expect, test } from './support'

test('a hotend is put together at the bench, and what is inside is changed', async ({ page }) => {
  await page.goto('/stores?add=hotend')
  const sheet = page.getByRole('dialog')
  await sheet.getByLabel('Tag').fill('H-08')
  await sheet.getByLabel('Sensor').selectOption({ label: 'Type K thermocouple' })
  await sheet.getByRole('button', { name: 'Put it on the shelf' }).click()
  await expect(sheet.getByText('There is already a hotend H-08')).toBeVisible()
  await axe(page, 'put a hotend together')
  await sheet.getByLabel('Tag').fill('H-20')
  await sheet.getByRole('button', { name: 'Put it on the shelf' }).click()
  const line = page.locator('[data-hotend="H-20"]')
  await expect(line).toContainText('no nozzle')
  await line.getByRole('button', { name: /^Change what is inside/ }).click()
  await sheet.getByRole('button', { name: 'Save' }).click()
  await expect(sheet.getByText('Say what was done')).toBeVisible()
  await sheet.getByLabel('Nozzle').selectOption({ index: 1 })
  await sheet.getByRole('button', { name: 'Save' }).click()
  await expect(line).not.toContainText('no nozzle')
})
