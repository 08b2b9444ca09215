/** What is kept running: started again a little later each time, and given up with the reason after five in a row. */
import { spawn } from 'node:child_process'
import { expect, test } from 'vitest'
import { MOST_RESTARTS, supervise } from '../../scripts/lib/supervise.mjs'

const short = async () => spawn(process.execPath, ['-e', 'process.exit(3)'])
const long = async () => spawn(process.execPath, ['-e', 'setInterval(() => {}, 1000)'])
const until = async (is: () => boolean) => {
  for (let i = 0; i < 400 && !is(); i++) await new Promise(done => setTimeout(done, 20))
  expect(is()).toBe(true)
}

test('one that ends at once is tried five times more, later each time, and given up with its reason', async () => {
  const waits: number[] = []
  const said: string[] = []
  let reason = ''
  await supervise({
    what: 'the application',
    start: short,
    say: t => said.push(t),
    gaveUp: r => (reason = r),
    wait: async ms => waits.push(ms),
  })
  await until(() => reason !== '')
  expect(waits).toEqual([200, 400, 800, 1600, 3200])
  expect(waits).toHaveLength(MOST_RESTARTS)
  expect(reason).toBe('the application ended 6 times in a row; the last time: code 3')
  expect(said.filter(s => s.includes('is back'))).toHaveLength(MOST_RESTARTS)
})

test('one that cannot even be started counts too, and its error is the reason', async () => {
  let n = 0
  let reason = ''
  await supervise({
    what: 'the database',
    start: async () => {
      if (n++ > 0) throw new Error('the disk is full')
      return await short()
    },
    say: () => {},
    gaveUp: r => (reason = r),
    wait: async () => {},
  })
  await until(() => reason !== '')
  expect(reason).toContain('the disk is full')
  expect(n).toBe(1 + MOST_RESTARTS)
})

test('one that was well for a while begins to count anew; stopped, it is not started again', async () => {
  let clock = 0
  const waits: number[] = []
  const kept = await supervise({
    what: 'the application',
    start: long,
    say: () => {},
    gaveUp: () => {},
    now: () => clock,
    wait: async ms => waits.push(ms),
  })
  for (let i = 0; i < MOST_RESTARTS + 3; i++) {
    const { pid } = kept.child()
    clock += 11_000
    process.kill(pid!, 'SIGKILL')
    await until(() => kept.child().pid !== pid)
  }
  expect(new Set(waits)).toEqual(new Set([200]))
  const { pid } = kept.child()
  await kept.stop('SIGTERM', 2000)
  await new Promise(done => setTimeout(done, 50))
  expect(kept.child().pid).toBe(pid)
})
