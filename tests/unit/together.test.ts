/** Readings asked for together are worked out together, and none is older than its asking. */
import { expect, test } from 'vitest'
import { newsNow, nextNews } from '../../server/doors/heard'
import { together } from '../../server/doors/together'

/** Work that ends when it is told to, and counts. */
function works() {
  const ends: (() => void)[] = []
  let value = 0
  let running = 0
  let most = 0
  const work = async () => {
    most = Math.max(most, ++running)
    const seen = value // what it read when it began
    await new Promise<void>(done => ends.push(done))
    running--
    return seen
  }
  const end = async () => {
    while (ends.length === 0) await new Promise(done => setTimeout(done, 1))
    ends.shift()!()
    await new Promise(done => setTimeout(done, 1))
  }
  return { work, end, save: () => ++value, most: () => most, left: () => ends.length }
}

test('twenty who ask while one is worked out wait for the next one, and share it', async () => {
  const w = works()
  const first = together('a', w.work)
  const saved = w.save()
  const others = Array.from({ length: 20 }, () => together('a', w.work))
  await w.end()
  await w.end()
  expect(await first).toBe(0)
  expect(await Promise.all(others)).toEqual(Array(20).fill(saved))
  expect(w.most()).toBe(1)
  expect(w.left()).toBe(0)
})

test('who asks after a save never gets an answer from before it', async () => {
  const w = works()
  const asked: { value: number; answer: Promise<number> }[] = []
  for (let i = 0; i < 30; i++) {
    asked.push({ value: i === 0 ? 0 : w.save(), answer: together('b', w.work) })
    if (i % 3 === 2) await w.end()
  }
  const ending = setInterval(() => void w.end(), 2)
  for (const a of asked) expect(await a.answer).toBeGreaterThanOrEqual(a.value)
  clearInterval(ending)
})

test('who asks because of news shares what was begun after them, also when it is done since', async () => {
  const w = works()
  const before = together('f', w.work, newsNow())
  w.save()
  nextNews()
  const heard = newsNow()
  // begun before the news: it may not know of them
  const first = together('f', w.work, heard)
  await w.end()
  await new Promise(done => setTimeout(done, 5))
  const second = together('f', w.work, heard)
  await w.end()
  expect(await Promise.all([before, first, second])).toEqual([0, 1, 1])
  const third = together('f', w.work, heard)
  expect(await third).toBe(1)
  expect(w.left()).toBe(0)
  // who does not say what was heard sees everything that is saved by now
  const saved = w.save()
  const fresh = together('f', w.work)
  await w.end()
  expect(await fresh).toBe(saved)
})

test('one that fails fails for those who shared it alone', async () => {
  let n = 0
  const work = () => (++n === 1 ? Promise.reject(new Error('away')) : Promise.resolve(n))
  const [first, second] = [together('c', work), together('c', work)]
  await expect(first).rejects.toThrow('away')
  expect(await second).toBe(2)
  expect(await together('c', work)).toBe(3)
})

test('different questions do not wait for each other', async () => {
  const [slow, quick] = [works(), works()]
  const pending = together('d', slow.work)
  const answer = together('e', quick.work)
  await quick.end()
  expect(await answer).toBe(0)
  await slow.end()
  await pending
})
