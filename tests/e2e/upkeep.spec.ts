/** Upkeep: an interval put right, a thing done, a cut-out tested, a restriction shown where a job is chosen. */
import { onOwnDemo } from './own-demo'
import { axe, expect } from './support'

const test = onOwnDemo('upkeep')

test('what is due leads; it is done, tested, planned, and restrictions are shown', async ({ page }) => {
  test.setTimeout(180_000)
  const said = (text: RegExp | string) => page.getByRole('status').filter({ hasText: text })
  // whoever wants to start there is told, and the line leads to the test
  const guards = page.locator('[data-line="guards"]')
  const mayStart = async () => {
    await page.goto('/prepare/check?printer=Ribble&spool=S-01')
    const job = page.locator('#check-job option', { hasText: 'cable-guide_PA6-CF20' }).first()
    await page.selectOption('#check-job', { label: (await job.textContent())!.trim() })
    await expect(page.locator('[data-line="profile"]')).toBeVisible()
  }
  await mayStart()
  await expect(guards).toHaveAttribute('data-status', 'stop')
  await expect(guards).toContainText('Did not trip when tested: the bed thermal cut-out. Nobody leaves this job alone.')
  await expect(guards.getByRole('button', { name: /^Looked/ })).toHaveCount(0)
  await guards.getByRole('link', { name: /^To its test/ }).click()
  await expect(page).toHaveURL(/\/change\/upkeep\?printer=Ribble/)
  await expect(said(/^Ribble: The bed thermal cut-out did not trip: do not run it unattended/)).toBeVisible()
  await axe(page, 'Upkeep')

  await page.getByRole('button', { name: /^Tested ?: Test of the bed thermal cut-out, Ribble/ }).click()
  await expect(page.getByLabel('What was tested')).toHaveValue('bed thermal cut-out')
  await page.getByLabel('Outcome').selectOption('it tripped')
  await page.getByRole('button', { name: 'Save the test' }).click()
  await expect(said('Ribble: the bed thermal cut-out tripped.')).toBeVisible()
  await expect(said(/did not trip/)).toHaveCount(0)
  await mayStart()
  await expect(guards).toHaveCount(0)
  await page.goto('/change/upkeep?printer=Ribble')

  await page.getByRole('button', { name: /^Done ?: Filters and extraction, Ribble/ }).click()
  await page.getByRole('button', { name: 'Save it' }).click()
  await expect(page.getByText('Say what was found')).toBeVisible()
  await page.locator('#upkeep-found').selectOption('needs work')
  await page.getByRole('button', { name: 'Save it' }).click()
  await expect(page.getByText('Say what needs work')).toBeVisible()
  await expect(page.getByLabel('Taken from the shelf: Carbon filter, pieces')).toHaveValue('')
  await page.locator('#upkeep-found').selectOption('replaced')
  await expect(page.getByLabel('Taken from the shelf: Carbon filter, pieces')).toHaveValue('1')
  await page.getByRole('button', { name: 'Save it' }).click()
  await expect(said('Ribble: Filters and extraction is done; it counts anew from here.')).toBeVisible()

  await page.getByRole('button', { name: 'Edit Extruder gears: teeth, grip, Ribble' }).click()
  await page.getByLabel('Every, filled filament, kg').fill('0')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('Enter 0.05 to 5000 kg of filled filament')).toBeVisible()
  await page.getByLabel('Every, filled filament, kg').fill('0,5')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText(/every 0\.5 kg filled/)).toBeVisible()

  await page.getByRole('button', { name: 'Restrictions of Ribble' }).click()
  await page.getByLabel('Restrictions, where jobs are chosen').fill('no radio; only for the mill')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('no radio; only for the mill').first()).toBeVisible()
  for (const path of ['/prepare/check?printer=Ribble', '/equip']) {
    await page.goto(path)
    if (path === '/equip') {
      const ribble = page.locator('#ask-printer option', { hasText: 'Ribble' })
      await page.selectOption('#ask-printer', { label: (await ribble.textContent())! })
    }
    await expect(page.getByText('no radio; only for the mill').first()).toBeVisible()
  }
})
