/**
 * Every kind of line of the check before a run: its fact is changed on the page that its button leads to, and the line
 * is judged anew on return. Nothing is ticked by hand but what eyes judge. On a copy of the demo shop.
 */
import type { Page } from '@playwright/test'
import { onOwnDemo } from './own-demo'
import { axe, expect, jobFile } from './support'

const test = onOwnDemo('check')

const said = (page: Page, text: string | RegExp) =>
  expect(page.getByRole('status').filter({ hasText: text }).first()).toBeVisible()
const like = async (page: Page, id: string, start: string) => {
  await expect(page.locator(`${id} option`, { hasText: start }).first()).toBeAttached()
  const texts = await page.locator(`${id} option`).allTextContents()
  await page.selectOption(
    id,
    texts.find(t => t.startsWith(start))!,
  )
}
const line = (page: Page, key: string) => page.locator(`[data-line="${key}"]`)
const is = (page: Page, key: string, status: string) =>
  expect(line(page, key).first()).toHaveAttribute('data-status', status)
/** To the page that the line leads to, what is done there, and back to the check that was left. */
async function set(page: Page, key: string, status: string, work: () => Promise<void>): Promise<void> {
  await is(page, key, status)
  await line(page, key).first().getByRole('link').click()
  await expect(page).not.toHaveURL(/\/prepare\/check/)
  await work()
  await back(page)
}
/** By the app's own links: a dropped file lives in the tab. */
async function back(page: Page): Promise<void> {
  await page
    .getByRole('link', { name: /^Prepare/ })
    .first()
    .click()
  await page.getByRole('link', { name: 'May I start' }).first().click()
  await expect(line(page, 'profile')).toBeVisible()
}
async function send(page: Page, path: string, data: object, method: 'post' | 'patch' = 'post') {
  const headers = { 'idempotency-key': `check-${Date.now()}-${path.replaceAll(/\W/g, '-')}` }
  const answer = await page.request[method](path, { data, headers })
  expect(answer.ok(), await answer.text()).toBe(true)
}
const now = () => new Date().toISOString()
interface Shop {
  printers: { id: number; name: string; heads: { id: number; nozzleId: number | null; nozzle: string | null }[] }[]
}
const shopOf = async (page: Page) => (await (await page.request.get('/api/shop')).json()) as Shop

test('profile, soak, air that is just met, in the nozzle, eyes: each by its own page', async ({ page }) => {
  test.setTimeout(240_000)
  await page.goto('/prepare/check?printer=Ribble&spool=S-01')
  await like(page, '#check-job', 'fit-check_PLA')
  await is(page, 'profile', 'stop')
  await line(page, 'profile')
    .getByRole('button', { name: /^To the file/ })
    .click()
  await expect(page.locator('#check-job')).toBeFocused()
  await like(page, '#check-job', 'cable-guide_PA6-CF20')
  await is(page, 'profile', 'ok')

  // no line has a button that would tick it, but what eyes judge
  await expect(page.getByRole('button', { name: /Set right/ })).toHaveCount(0)
  for (const key of ['surface', 'level', 'lid and vent', 'own']) {
    await is(page, key, 'confirm')
    await line(page, key)
      .first()
      .getByRole('button', { name: /^Looked at/ })
      .click()
    await is(page, key, 'looked')
  }
  for (const key of ['soak', 'dryness'])
    await expect(line(page, key).getByRole('button', { name: /^Looked at/ })).toHaveCount(0)

  await set(page, 'soak', 'look', async () => {
    await page.getByRole('button', { name: 'Start the soak' }).click()
    await said(page, /Ribble soaks until/)
    await page.getByRole('button', { name: 'End the soak' }).click()
    await page.getByRole('button', { name: 'Log the end' }).click()
    await said(page, 'soak of Ribble: ended')
  })
  await is(page, 'soak', 'ok')
  await is(page, 'surface', 'looked') // what was answered is still answered

  // the air at the printed idler is just what it takes: a survey tells that it is cooler now
  const just = line(page, 'limits').filter({ hasText: 'just' })
  await expect(just).toContainText('The limit of the printed idler, PETG is 65 °C')
  await just.getByRole('link', { name: /^Measure it/ }).click()
  await page.getByRole('button', { name: 'Survey it' }).click()
  for (const [i, minute] of ['0', '15', '30'].entries())
    for (const [what, value] of [
      ['minute', minute],
      ['room, °C', '23'],
      ['P1, °C', '66'],
      ['P2, °C', '61'],
    ] as const)
      await page.getByLabel(`Row ${i + 1}: ${what}`, { exact: true }).fill(value)
  await page.getByRole('button', { name: 'Save the survey' }).click()
  await said(page, /Ribble surveyed: near bed and head 56 ± \d %/)
  await page.goto('/prepare/check')
  await expect(line(page, 'profile')).toBeVisible()
  await expect(line(page, 'limits').filter({ hasText: 'just' })).toHaveCount(0)

  // another filament: what stands in the nozzle is purged first
  await like(page, '#check-printer', 'Wharfe')
  await page.selectOption('#check-spool', { index: 0 })
  await page.selectOption('#check-material', { label: 'ABS' })
  await like(page, '#check-job', 'relay-base_ABS')
  await set(page, 'in the nozzle', 'stop', async () => {
    await said(page, /there both PA12-CF15 and ABS flow/)
    await page.getByRole('button', { name: 'Log the purge' }).click()
    await said(page, /now holds ABS/)
  })
  await is(page, 'in the nozzle', 'ok')
})

test('a missing limit, a nozzle, a sheet, a spool: each where it is entered', async ({ page }) => {
  test.setTimeout(240_000)
  const equip = (await (await page.request.get('/api/equip')).json()) as {
    printers: { name: string; parts: { id: number; name: string; version: number; limitC: number | null }[] }[]
  }
  const belts = equip.printers.find(p => p.name === 'Wharfe')!.parts.find(p => p.name === 'belts')!
  const { id, version, ...values } = belts
  await send(page, `/api/edit/parts/${id}`, { version, values: { ...values, limitC: null } }, 'patch')
  await page.goto('/prepare/check?printer=Wharfe')
  await page.selectOption('#check-spool', { index: 0 })
  await page.selectOption('#check-material', { label: 'ABS' })
  await like(page, '#check-job', 'relay-base_ABS')
  const missing = line(page, 'limits').filter({ hasText: 'belts stand is not known' })
  await expect(missing).toHaveAttribute('data-status', 'unknown')
  await expect(missing).toContainText('This is never waived')
  await expect(missing.getByRole('button')).toHaveCount(0)
  await missing.getByRole('link', { name: /^To the parts/ }).click()
  await page.getByRole('button', { name: 'Edit belts' }).click()
  await page.getByLabel('Limit as rated, °C').fill('73')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByRole('row', { name: /belts 73 °C/ })).toBeVisible()
  await page.goto('/prepare/check')
  await expect(line(page, 'profile')).toBeVisible()
  await expect(missing).toHaveCount(0)

  // the spool: chosen here, and its water by its own page
  await is(page, 'spool', 'unknown')
  await line(page, 'spool')
    .getByRole('button', { name: /^To the file/ })
    .click()
  await like(page, '#check-spool', 'S-')
  await expect(line(page, 'spool')).not.toHaveAttribute('data-status', 'unknown')

  // no nozzle: fitted in Stores, never waived
  const nidd = (await shopOf(page)).printers.find(p => p.name === 'Nidd')!
  const had = nidd.heads[0]!
  await send(page, '/api/fittings', { kind: 'remove', nozzleId: had.nozzleId, headId: null, occurredAt: now() })
  await page.goto('/prepare/check?printer=Nidd')
  await page.selectOption('#check-spool', { index: 0 })
  await page.selectOption('#check-material', { label: 'PETG' })
  await like(page, '#check-job', 'guard-clip_PETG')
  await is(page, 'wear', 'stop')
  await expect(line(page, 'wear')).toContainText('This is never waived')
  await line(page, 'wear').getByRole('link').click()
  await like(page, '#fit-nozzle', had.nozzle!)
  await page.getByRole('dialog').getByRole('button', { name: /^Fit/ }).click()
  await said(page, /fitted/)
  await page.goto('/prepare/check')
  await expect(line(page, 'wear')).not.toHaveAttribute('data-status', 'stop')
  await expect(line(page, 'level')).toContainText(`${had.nozzle} was fitted since the last run here`)

  // the sheet that is on
  await page.selectOption('#check-material', { label: 'PP' })
  await set(page, 'surface', 'stop', async () => {
    await page.getByRole('button', { name: 'Edit PEI sheet' }).click()
    await page.getByLabel('Surface').selectOption('polypropylene')
    await page.getByRole('button', { name: 'Save', exact: true }).click()
    await expect(page.getByText('polypropylene').first()).toBeVisible()
  })
  await is(page, 'surface', 'confirm')
})

test('never waived: a file that burns its filament; a file without setpoints gets them here', async ({ page }) => {
  await page.goto('/prepare/check?printer=Calder')
  await page.selectOption('#check-spool', { index: 0 })
  await page.selectOption('#check-material', { label: 'PLA' })
  await like(page, '#check-job', 'dye-bath-impeller_PEEK-CF10')
  await expect(line(page, 'profile')).toContainText('stands 260 °C for a short time at most')
  await expect(line(page, 'profile')).toContainText('This is never waived')
  await expect(line(page, 'profile').getByRole('button', { name: /^Waive/ })).toHaveCount(0)
  await said(page, /^Do not start: Nozzle 430 °C/)
  await axe(page, 'May I start')

  const silent = jobFile({ layers: 20 })
    .toString()
    .replace(/^M1[04].*\n/gm, '')
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles({ name: 'silent.gcode', mimeType: 'text/plain', buffer: Buffer.from(silent) })
  await expect(line(page, 'profile')).toContainText('The file sets no temperatures')
  await page.getByLabel('Nozzle will be set to, °C').fill('2100')
  await expect(page.getByLabel('Nozzle will be set to, °C')).toHaveAccessibleDescription(/^At most \d+ °C$/)
  await page.getByLabel('Nozzle will be set to, °C').fill('210')
  await page.getByLabel('Bed will be set to, °C').fill('55')
  await is(page, 'profile', 'ok')

  // the shop's own line, added here, asked from now on
  await page.getByRole('button', { name: 'Add a line of your own' }).click()
  await page.getByLabel('What is looked at').fill('ab')
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^(Save|Add)/ })
    .click()
  await expect(page.getByText('Say what is looked at')).toBeVisible()
  await page.getByLabel('What is looked at').fill('The door is closed.')
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^(Save|Add)/ })
    .click()
  await expect(line(page, 'own').filter({ hasText: 'The door is closed.' })).toBeVisible()

  // stored, it is there for the run on any screen: the amount, and what was set by hand
  await page.getByRole('button', { name: /^Store/ }).click()
  await expect(page).toHaveURL(/check\/\d+$/)
  const stored = page.url().split('/').pop()!
  const elsewhere = await (await page.context().browser()!.newContext()).newPage()
  await elsewhere.goto(`${new URL(page.url()).origin}/run?precheck=${stored}`)
  await expect(elsewhere.getByLabel('Job', { exact: true })).toHaveValue('silent')
  await expect(elsewhere.getByLabel('Nozzle set to, °C')).toHaveValue('210')
  await expect(elsewhere.getByText(/^\d+(\.\d+)? g PLA, no fibre through N-\d+/)).toBeVisible()
  await elsewhere.context().close()
})

/** What a slicer writes after it was told to; feeds in mm/min, null for a file that states none. */
interface Sliced {
  layers?: number
  perLayer?: number
  feed?: number | null
  firstFeed?: number
  fan?: number
  nozzleC?: number
  bedC?: number
  chamberC?: number
}
function sliced(job: Sliced): Buffer {
  const { layers = 40, perLayer = 5, feed = 1200, firstFeed = 900, fan = 0, nozzleC = 280, bedC = 100, chamberC } = job
  const lines = ['M83', `M104 S${nozzleC}`, `M140 S${bedC}`, `M106 S${fan}`]
  if (chamberC !== undefined) lines.push(`M141 S${chamberC}`)
  for (let l = 0; l < layers; l++) {
    const f = l === 0 ? firstFeed : feed
    lines.push(
      `G1 Z${(0.3 * (l + 1)).toFixed(1)}${feed === null ? '' : ` F${f}`}`,
      `G1 X${l % 2 ? 0 : 50} E${perLayer}`,
    )
  }
  return Buffer.from(lines.join('\n') + '\n')
}
const drop = async (page: Page, name: string, job: Sliced) =>
  page
    .locator('input[type=file]')
    .first()
    .setInputFiles({ name, mimeType: 'text/plain', buffer: sliced(job) })

test('flow, first layer, fan, chamber and hours: by another file; the bore by a gauge', async ({ page }) => {
  test.setTimeout(240_000)
  await page.goto('/prepare/check?printer=Ribble&spool=S-01')
  await drop(page, 'fast.gcode', { feed: 9000, firstFeed: 3600, fan: 255 })
  for (const key of ['flow', 'first layer', 'fan']) {
    await is(page, key, 'look')
    await expect(line(page, key).getByRole('button', { name: /^Looked at/ })).toHaveCount(0)
    await line(page, key)
      .getByRole('button', { name: /^To the file/ })
      .click()
    await expect(page.locator('#check-job')).toBeFocused()
  }
  await line(page, 'flow')
    .getByRole('button', { name: /^Waive/ })
    .click()
  await page.getByRole('button', { name: 'a trial piece' }).click()
  await expect(line(page, 'flow')).toContainText('Waived')
  await line(page, 'level')
    .getByRole('button', { name: /^Looked at/ })
    .click()
  // made again: what eyes saw stays, a reason was given for the other file
  await drop(page, 'faster.gcode', { feed: 9600, firstFeed: 900, fan: 60 })
  await is(page, 'first layer', 'ok')
  await is(page, 'fan', 'ok')
  await is(page, 'flow', 'look')
  await is(page, 'level', 'looked')
  await expect(line(page, 'flow')).not.toContainText('Waived')
  await drop(page, 'slow.gcode', {})
  await is(page, 'flow', 'ok')
  await is(page, 'level', 'looked')

  // enough fibre to ask what N-014 still takes
  await drop(page, 'long.gcode', { layers: 200, perLayer: 620 })
  await expect(line(page, 'wear')).toContainText('left: perhaps too little')
  await set(page, 'wear', 'look', async () => {
    await expect(page).toHaveURL(/\/inspect\/N-014\?gauge=1/)
    await page.getByText('a value, ± how sure').click()
    await page.getByLabel('Bore, mm').fill('0.43')
    await page.getByLabel('± (one standard uncertainty), mm').fill('0.001')
    await page.getByRole('button', { name: 'Save the gauge' }).click()
    await said(page, /N-014 is at/)
  })
  await is(page, 'wear', 'ok')

  // a file without a feedrate says nothing of its time: not 0 hours, which every spool outlasts
  await like(page, '#check-spool', 'S-02')
  await drop(page, 'no-feed.gcode', { feed: null })
  await is(page, 'dryness', 'unknown')
  await expect(line(page, 'dryness')).toContainText('How long the job takes is not known')
  await line(page, 'dryness')
    .getByRole('button', { name: /^Enter the hours/ })
    .click()
  await expect(page.locator('#check-hours')).toBeFocused()
  await page.locator('#check-hours').fill('1')
  await expect(line(page, 'dryness')).toContainText('The job takes 60 min')
  await page.locator('#check-hours').fill('')

  // another printer: nothing that was looked at on this one is looked at there
  await is(page, 'level', 'looked')
  await page.selectOption('#check-printer', { label: 'Calder' })
  await is(page, 'level', 'confirm')
  await like(page, '#check-spool', 'S-08')
  await drop(page, 'cold.gcode', { nozzleC: 375, bedC: 120 })
  await is(page, 'chamber', 'stop')
  await line(page, 'chamber')
    .getByRole('button', { name: /^To the file/ })
    .click()
  await expect(page.locator('#check-job')).toBeFocused()
  await drop(page, 'just-warm.gcode', { nozzleC: 375, bedC: 160, chamberC: 90 })
  await is(page, 'chamber', 'look')
  await expect(line(page, 'chamber').getByRole('link', { name: /^Measure it/ })).toBeVisible()
  await drop(page, 'warm.gcode', { nozzleC: 375, bedC: 160, chamberC: 105 })
  await is(page, 'chamber', 'ok')
})
