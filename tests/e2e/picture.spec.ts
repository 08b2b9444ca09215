/** The picture gauge as it is used: calibrate, look, move the ring by keys, save, see it; and what is no picture. */
import type { Page } from '@playwright/test'
import { mouthScene } from '../../sim/mouth-scenes'
import { drawMouth } from '../../sim/mouth-picture'
import { pngOf, stageUnderMicroscope } from '../../sim/microscope'
import { onOwnDemo } from './own-demo'
import { axe, expect, fitsAcross } from './support'

const test = onOwnDemo('picture')

const drop = (page: Page, name: string, buffer: Buffer, mimeType = 'image/png') =>
  page.getByLabel('Picture', { exact: true }).setInputFiles({ name, mimeType, buffer })
const status = (page: Page) => page.getByRole('status').filter({ hasText: /\S/ })

/** The stand-in draws a picture and the browser measures in it: seconds each where both cores have other work. */
const MEASURED = { timeout: 60_000 }

test.use({ shop: true })

test('in an empty shop: a set-up, its scale from a stage scale, and nothing to measure without one', async ({
  page,
}) => {
  await page.goto('/inspect/picture')
  await expect(page.getByText('First add the microscope or camera as a set-up')).toBeVisible()
  await page.getByRole('link', { name: 'Add a set-up' }).click()
  const sheet = page.getByRole('dialog')
  await sheet.getByLabel('Name').fill('Old microscope')
  await sheet.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByText('Old microscope has no scale yet: read it')).toBeVisible()
  const stage = pngOf(stageUnderMicroscope(0.01, 4))
  await page.getByLabel('From bar to bar, mm').fill('0')
  await drop(page, 'stage.png', stage)
  await expect(status(page).filter({ hasText: 'Say how far apart, in mm.' })).toBeVisible()
  await page.getByLabel('From bar to bar, mm').fill('0.01')
  await page.getByRole('button', { name: 'Read the scale' }).click()
  await expect(page.getByText(/^2\.(39|40)\d\d µm per pixel$/)).toBeVisible()
  await page.getByRole('button', { name: 'Save as the scale of Old microscope' }).click()
  await expect(page.getByRole('region', { name: 'Saved: scale of Old microscope' })).toBeVisible()
  await axe(page, 'scale')
})
test.describe(() => {
  test.use({ shop: false })

  test('a nozzle under the microscope: ring on the mouth, moved off and measured back by keys, saved, seen', async ({
    page,
  }) => {
    await page.goto('/inspect/picture?nozzle=N-014')
    await page.getByRole('button', { name: 'Look through the microscope' }).click()
    await expect(page.getByText(/^N-014: the mouth is 0\.4\d+ ± 0\.00\d+ mm wide\.$/)).toBeVisible(MEASURED)
    const said = await page.getByText(/^N-014: the mouth is/).innerText()
    await axe(page, 'picture')
    const ring = page.getByRole('button', { name: /^Ring on the mouth/ })
    await ring.focus()
    for (const key of ['Shift+ArrowRight', 'ArrowUp', '+', '+']) await ring.press(key, { delay: 50 })
    await ring.press('Enter')
    await expect(page.getByText('What the ± is made of')).toBeVisible(MEASURED)
    await expect(page.getByText(said.slice(0, 26))).toBeVisible()
    await page.getByText('What the ± is made of').click()
    await expect(page.getByText('together')).toBeVisible()
    await page.getByRole('button', { name: 'Save the gauge of N-014' }).click()
    const saved = page.getByRole('region', { name: 'Saved: gauge of N-014 by picture' })
    await expect(saved).toContainText('N-014 is at ⌀0.4')
    await saved.getByRole('link', { name: 'See N-014' }).click()
    await expect(page.getByRole('heading', { name: 'Mouth in pictures, all at one scale' })).toBeVisible()
    const latest = page.getByRole('img', { name: /^N-014 latest/ })
    await expect(latest).toBeVisible()
    const blob = await latest.locator('image').getAttribute('href')
    const answer = await page.request.get(blob!)
    expect([answer.status(), answer.headers()['content-type'], answer.headers()['x-content-type-options']]).toEqual([
      200,
      'image/jpeg',
      'nosniff',
    ])
    expect((await answer.body()).length).toBeLessThan(300_000)
    await axe(page, 'nozzle with pictures')
  })

  test('what is no picture says so, and the page goes on', async ({ page }) => {
    await page.goto('/inspect/picture?nozzle=N-014')
    await expect(page.getByText('Bench microscope, lens 2')).toBeAttached()
    await drop(page, 'empty.png', Buffer.alloc(0))
    await expect(page.getByText('This file is empty (0 bytes)')).toBeVisible()
    await drop(page, 'text.png', Buffer.from('no picture at all'))
    await expect(page.getByText('This is no picture that the browser can read')).toBeVisible()
    await drop(page, 'photo.jpg', Buffer.from('\0\0\0\x18ftypheic\0\0\0\0mif1heic', 'latin1'), 'image/jpeg')
    await expect(page.getByText('This is a HEIC picture')).toBeVisible()
    const blank = pngOf({ width: 200, height: 150, rgba: new Uint8ClampedArray(200 * 150 * 4).fill(140) })
    await drop(page, 'blank.png', blank)
    await expect(page.getByText(/^No mouth found: .* Put the ring on the mouth/)).toBeVisible()
    const tiny = pngOf({ width: 12, height: 12, rgba: new Uint8ClampedArray(12 * 12 * 4).fill(140) })
    await drop(page, 'tiny.png', tiny)
    await expect(page.getByText('This picture is 12 × 12 pixels')).toBeVisible()
    const small = { ...mouthScene('clean', 2, 240), a: 17, b: 17, flat: 40, tone: 'srgb' as const }
    await drop(page, 'small.png', pngOf(drawMouth(small)))
    await expect(page.getByText(/Too few pixels: the mouth is 3\d across, 40 are needed/)).toBeVisible()
    await drop(page, 'good.png', pngOf(drawMouth({ ...mouthScene('oval', 3, 480), tone: 'srgb' })))
    await expect(page.getByText(/^N-014: the mouth is/)).toBeVisible(MEASURED)
  })

  test('on a phone: the camera, a ring that buttons move, everything within the width', async ({ page }) => {
    await page.setViewportSize({ width: 390, height: 800 })
    await page.goto('/inspect/picture?nozzle=N-014')
    await expect(page.getByRole('button', { name: 'Camera', exact: true })).toBeVisible()
    const camera = page.getByLabel('Picture from the camera')
    await expect(camera).toHaveAttribute('capture', 'environment')
    const buffer = pngOf(drawMouth({ ...mouthScene('clean', 5, 480), tone: 'srgb' }))
    await camera.setInputFiles({ name: 'photo.png', mimeType: 'image/png', buffer })
    await expect(page.getByText(/^N-014: the mouth is/)).toBeVisible(MEASURED)
    await page.getByRole('button', { name: 'Larger' }).click()
    await page.getByRole('button', { name: 'Measure at the ring' }).click()
    await expect(page.getByText(/^N-014: the mouth is/)).toBeVisible(MEASURED)
    await fitsAcross(page)
    await axe(page, 'picture on a phone')
  })
})
