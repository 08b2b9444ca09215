/** What was saved before a screen could hear of it. */
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { useShop } from '~/state/shop'
import { Connection } from './connection'

beforeEach(() => {
  vi.useFakeTimers()
  vi.stubGlobal('EventSource', Connection)
  vi.stubGlobal('fetch', () => Promise.reject(new Error('no server here')))
  setActivePinia(createPinia())
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

/** How often everything was read anew after these beats, the screen having been there for so long before the first. */
async function readAnew(aliveMs: number, beats: string[]): Promise<number> {
  const shop = useShop()
  shop.listen()
  vi.advanceTimersByTime(aliveMs)
  for (const b of beats) Connection.all.at(-1)!.tell('beat', b)
  await vi.advanceTimersByTimeAsync(10)
  return shop.revision
}

test('something was saved between the first reading and the first beat: all is read once more', async () => {
  expect(await readAnew(400, ['120', '', ''])).toBe(1)
})
test('quiet since before the screen was there: nothing is read twice', async () => {
  expect(await readAnew(400, ['60000', '', ''])).toBe(0)
})
