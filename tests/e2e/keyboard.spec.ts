/** The same work with the keyboard alone, the strip, a scanner, and a phone. */
import type { Page } from '@playwright/test'
import { axe, expect, fitsAcross, test } from './support'

/** Tabs until an element with this name has focus; fails after many. */
async function tabTo(page: Page, name: RegExp, most = 60): Promise<void> {
  const passed: string[] = []
  for (let i = 0; i < most; i++) {
    await page.keyboard.press('Tab')
    const text = await page.evaluate(() => {
      const e = document.activeElement as HTMLElement | null
      const label = e?.id ? document.querySelector(`label[for="${e.id}"]`)?.textContent : null
      return [label, e?.closest('label')?.textContent, e?.getAttribute('aria-label'), e?.textContent]
        .filter(Boolean)
        .join(' ')
        .trim()
    })
    if (name.test(text)) return
    passed.push(text.slice(0, 20))
  }
  throw new Error(`no focus on ${name}; passed ${passed.join(' | ')}`)
}

test('keyboard only: floor to nozzle, gauge it, log a run, strike it out', async ({ page }) => {
  await page.goto('/')
  await expect(page.getByRole('heading', { name: 'Aire' })).toBeVisible()
  await page.keyboard.press('4')
  await expect(page).toHaveURL(/\/inspect$/)
  await expect(page.getByRole('link', { name: /N-014/ })).toBeVisible()
  await tabTo(page, /^N-0\d\d/)
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/\/inspect\/N-0\d\d$/)
  const tag = page.url().split('/').pop()!
  await expect(page.getByRole('heading', { name: tag })).toBeVisible()
  await page.keyboard.press('g')
  await expect(page.getByLabel('Goes, mm')).toBeFocused()
  await tabTo(page, /^Tip length/)
  await page.keyboard.type('12,44')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('status').filter({ hasText: `${tag} is at ⌀` })).toBeVisible()
  await page.keyboard.press('r')
  await expect(page).toHaveURL(new RegExp(`/run\\?nozzle=${tag}`))
  await expect(page.getByLabel('Nozzle', { exact: true })).toBeVisible()
  await tabTo(page, /^Job$/)
  await page.keyboard.type('by keys')
  await tabTo(page, /^Spool/)
  await page.keyboard.press('Home')
  await tabTo(page, /^Material/)
  await page.keyboard.type('PC-CF')
  await tabTo(page, /^Extruded/)
  await page.keyboard.type('12.5')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('status').filter({ hasText: `fibre on ${tag}` })).toBeVisible()
  await tabTo(page, /^Strike out ?by keys/, 90)
  await page.keyboard.press('Enter')
  await tabTo(page, /^Reason/)
  await page.keyboard.type('only a test')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/Struck out by .*: only a test/)).toBeVisible()
  await page.keyboard.press('7')
  await expect(page).toHaveURL(/\/stores/)
  await page.keyboard.press('0')
  await expect(page).toHaveURL(/\/$/)
})

test('a scan on a page that is still coming is read once its names are there', async ({ page }) => {
  let arrive = () => {}
  const held = new Promise<void>(done => (arrive = done))
  await page.route('**/api/shop', async route => {
    await held
    await route.continue()
  })
  await page.goto('/due')
  await page.getByRole('combobox', { name: /Log or find/ }).fill('N-014')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Cannot read “N-014”')).toBeVisible()
  arrive()
  await expect(page).toHaveURL(/inspect\/N-014$/)
})

test('the strip: says what it understood, completes, names the unread word, asks, saves', async ({ page }) => {
  await page.goto('/')
  const strip = page.getByRole('combobox', { name: /Log or find/ })
  const panel = page.locator('#strip-panel')
  await expect(page.getByRole('heading', { name: 'Aire' })).toBeVisible()
  await page.keyboard.press('/')
  await expect(strip).toBeFocused()
  await page.keyboard.type('N-03')
  await expect(panel.getByRole('option', { name: 'N-031' })).toBeVisible()
  await axe(page, 'strip')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Tab')
  await expect(strip).toHaveValue('N-031 ')
  await page.keyboard.type('bore 0.40-0,41 tpi')
  await expect(panel).toContainText('Cannot read “tpi”')
  for (let i = 0; i < 3; i++) await page.keyboard.press('Backspace')
  await page.keyboard.type('tip 12.50')
  await expect(panel).toContainText('Gauge N-031: 0.4 goes, 0.41 does not, tip 12.5 mm')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('status').filter({ hasText: /N-031 is at ⌀0\.4\d\d mm/ })).toBeVisible()
  await page.keyboard.type('Ribble +9999g PA6-CF20')
  await page.keyboard.press('Escape')
  await page.keyboard.press('/')
  await page.keyboard.type('Wharfe +40g PC-CF10 2h')
  await expect(panel).toContainText('Log a run on Wharfe, N-022: 40 g PC-CF10, 2 h')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('status').filter({ hasText: '+4 g fibre on N-022' })).toBeVisible()
  await page.keyboard.type('N-022')
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/\/inspect\/N-022/)
})

test('a scanner bursts into the strip wherever focus is; single keys can be switched off', async ({ page }) => {
  await page.goto('/run')
  await expect(page.getByRole('heading', { name: 'Run', exact: true })).toBeVisible()
  await page.evaluate(() => {
    for (const key of 'N-014')
      document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }))
  })
  const strip = page.getByRole('combobox', { name: /Log or find/ })
  await expect(strip).toHaveValue('N-014')
  await expect(page).toHaveURL(/\/run$/)
  // Esc may clear the line first, where what it understood has come meanwhile
  await expect(async () => {
    await page.keyboard.press('Escape')
    await expect(strip).not.toBeFocused({ timeout: 500 })
  }).toPass()
  await page.keyboard.press('?')
  await page.getByText('Single keys act when no field has focus').click()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  const visited: string[] = []
  page.on('framenavigated', f => visited.push(new URL(f.url()).pathname))
  // a finger's keys: faster ones would be a scanner's
  await page.keyboard.press('7', { delay: 100 })
  await page.keyboard.press('?', { delay: 100 })
  await page.getByText('Single keys act when no field has focus').click()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await page.keyboard.press('4')
  await expect(page).toHaveURL(/\/inspect$/)
  expect(visited.filter(path => path === '/stores')).toEqual([])
})

test('on a phone: log, gauge and read without sideways scrolling, targets large enough', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  for (const path of ['/', '/run', '/inspect', '/inspect/N-014?gauge=1', '/stores']) {
    await page.goto(path)
    await expect(page.getByRole('heading').first()).toBeVisible()
    await page.waitForLoadState('networkidle')
    await fitsAcross(page)
    const small = await page.evaluate(() =>
      [...document.querySelectorAll<HTMLElement>('button, a, input, select, summary')]
        .filter(e => {
          const r = e.getBoundingClientRect()
          const host = e.closest('label.check')?.getBoundingClientRect() ?? r
          return (
            r.width > 0 &&
            getComputedStyle(e).position !== 'absolute' &&
            !e.closest('.sr-only') &&
            Math.max(r.height, host.height) < 39.5
          )
        })
        .map(e => `${e.tagName} ${e.textContent?.trim().slice(0, 30)}`),
    )
    expect(small, path).toEqual([])
    const tiny = await page.evaluate(() =>
      [...document.querySelectorAll<HTMLElement | SVGElement>('body *')]
        .filter(
          e =>
            e.childNodes.length > 0 &&
            [...e.childNodes].some(n => n.nodeType === 3 && n.textContent!.trim() !== '') &&
            parseFloat(getComputedStyle(e).fontSize) < 12,
        )
        .map(e => e.textContent!.slice(0, 30)),
    )
    expect(tiny, path).toEqual([])
  }
  await page.goto('/run')
  await page.getByLabel('Printer').selectOption({ label: 'Calder' })
  await page.getByLabel('Spool', { exact: true }).selectOption({ index: 0 })
  await page.getByLabel('Material').selectOption({ label: 'PEI' })
  await page.getByLabel('Extruded, g').fill('20')
  await page.getByRole('button', { name: 'Save the run' }).click()
  await expect(page.getByRole('status').filter({ hasText: '+20.0 g unfilled on N-031' })).toBeVisible()
})
