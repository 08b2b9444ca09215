/** The list of what is due, top to bottom: each line leads to its place; put off, printed, read by a calendar. */
import { onOwnDemo } from './own-demo'
import { axe, expect, fitsAcross } from './support'

const test = onOwnDemo('due')

test('the morning sheet: what stops first, every line leads to where it is done', async ({ page }) => {
  test.setTimeout(240_000)
  const said = (text: RegExp | string) => page.getByRole('status').filter({ hasText: text })
  await page.goto('/')
  await page.getByRole('link', { name: 'All that is due' }).click()
  await expect(said(/things? of \d+ due must not wait/)).toBeVisible()
  await axe(page, 'What is due')
  await page.getByRole('button', { name: 'Printer', exact: true }).click()
  await expect(page).toHaveURL(/by=printer/)
  const list = (await (await page.request.get('/api/due')).json()) as {
    items: { open: string; mark: string; on: string | null; station: string }[]
    counts: Record<string, number>
  }
  // the rail counts the same
  await expect(page.getByRole('link', { name: new RegExp(`^Change due: ${list.counts.change}$`) })).toBeVisible()
  const stations = [...new Map(list.items.map(i => [i.open.split('?')[0], i.open])).values()]
  for (const open of stations) {
    await page.goto(open)
    // some lead into a sheet, which hides what lies behind it
    await expect(page.getByRole('heading', { level: 1 }).or(page.getByRole('dialog')).first()).toBeVisible()
    await expect(page.getByText('There is no such page')).toHaveCount(0)
  }

  await page.goto('/due')
  await expect(page.getByRole('button', { name: /^Put it off/ }).first()).toBeVisible()
  const { width, height } = page.viewportSize()!
  for (const narrow of [390, 820]) {
    await page.setViewportSize({ width: narrow, height })
    await fitsAcross(page)
  }
  await page.setViewportSize({ width, height })
  const off = page.getByRole('button', { name: /^Put it off/ }).first()
  await off.click()
  await page.getByRole('button', { name: 'Put it off', exact: true }).click()
  await expect(page.getByText('Say why it can wait')).toBeVisible()
  await page.getByLabel('Why it can wait').fill('the spare comes on Tuesday')
  await page.getByLabel('For how long, days').fill('0')
  await page.getByRole('button', { name: 'Put it off', exact: true }).click()
  await expect(page.getByText('Put it off to a day that is still to come')).toBeVisible()
  await page.getByLabel('For how long, days').fill('2')
  await page.getByRole('button', { name: 'Put it off', exact: true }).click()
  await expect(said(/^Put off until .*: the spare comes on Tuesday\.$/)).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Put off' })).toBeVisible()
  // the Floor tells the same, and no longer as what is next
  await page.goto('/')
  await expect(page.getByText('1 thing put off, in what is due.')).toBeVisible()
  await page.goto('/due')

  await page.getByRole('button', { name: 'Calendar' }).click()
  await page.getByLabel('Whose calendar').fill('Shop lead')
  await page.getByRole('button', { name: 'Give it an address' }).click()
  const address = (await page.locator('[data-address]').textContent())!
  const feed = await page.request.get(address)
  expect([feed.status(), feed.headers()['content-type']]).toEqual([200, 'text/calendar; charset=utf-8'])
  expect(await feed.text()).toMatch(/^BEGIN:VCALENDAR/)
  await page.getByRole('button', { name: 'Revoke Shop lead' }).click()
  await expect(page.getByRole('list', { name: 'Addresses given' })).toContainText('revoked')
  const gone = await page.request.get(address)
  expect([gone.status(), ((await gone.json()) as { title: string }).title]).toEqual([
    410,
    'This calendar address was revoked: ask for a new one',
  ])
  expect((await page.request.get('/api/calendar')).status()).toBe(200)
})
