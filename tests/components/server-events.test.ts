import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { Connection } from './connection'

const standing = () => Connection.all.filter(c => c.readyState !== Connection.CLOSED)

let isHidden = false
/** What the module of a test listens to goes with the test. */
let listening: (() => void)[] = []
function followed(target: EventTarget) {
  const { addEventListener } = target
  vi.spyOn(target, 'addEventListener').mockImplementation((name, heard) => {
    listening.push(() => target.removeEventListener(name, heard))
    addEventListener.call(target, name, heard)
  })
}
const look = (away: boolean) => {
  isHidden = away
  document.dispatchEvent(new Event('visibilitychange'))
}
/** The module anew: it keeps its one connection for as long as a page stands. */
async function hearing() {
  vi.resetModules()
  const { hearServer } = await import('~/lib/server-events')
  const heard: string[] = []
  hearServer({
    events: { saved: data => heard.push(data) },
    opened: () => heard.push('opened'),
    gone: () => heard.push('gone'),
  })
  return { heard, hearServer }
}

beforeEach(() => {
  vi.useFakeTimers()
  vi.stubGlobal('EventSource', Connection)
  vi.spyOn(document, 'hidden', 'get').mockImplementation(() => isHidden)
  followed(document)
  followed(window)
  Connection.all = []
  isHidden = false
})
afterEach(() => {
  for (const end of listening) end()
  listening = []
  vi.useRealTimers()
  vi.restoreAllMocks()
  vi.unstubAllGlobals()
})

test('whoever hears, there is one connection', async () => {
  const { heard, hearServer } = await hearing()
  const second: string[] = []
  hearServer({ events: { live: data => second.push(data) }, gone: () => {} })
  expect(standing().map(c => c.path)).toEqual(['/api/events'])
  standing()[0]!.tell('open')
  standing()[0]!.tell('saved', 'a')
  standing()[0]!.tell('live', 'b')
  expect(heard).toEqual(['opened', 'a'])
  expect(second).toEqual(['b'])
})

test('a tab nobody looks at lets go of it, says so, and takes it up when it is looked at', async () => {
  const { heard } = await hearing()
  look(true)
  vi.advanceTimersByTime(9000)
  look(false)
  vi.advanceTimersByTime(60_000)
  expect(standing(), 'a short look elsewhere').toHaveLength(1)
  expect(heard).toEqual([])

  look(true)
  vi.advanceTimersByTime(11_000)
  expect(standing()).toHaveLength(0)
  expect(heard).toEqual(['gone'])

  look(false)
  vi.advanceTimersByTime(1)
  expect(standing()).toHaveLength(1)
  standing()[0]!.tell('saved', 'after')
  expect(heard).toEqual(['gone', 'after'])
})

test('refused, it asks again; refused while nobody looks, it waits for the look', async () => {
  const { heard } = await hearing()
  standing()[0]!.refuse()
  expect(heard).toEqual(['gone'])
  vi.advanceTimersByTime(3001)
  expect(standing()).toHaveLength(1)

  look(true)
  standing()[0]!.refuse()
  vi.advanceTimersByTime(60_000)
  expect(standing()).toHaveLength(0)
  look(false)
  vi.advanceTimersByTime(1)
  expect(standing()).toHaveLength(1)
})

test('a page that is left lets go at once; one that was kept takes it up when it is come back to', async () => {
  const { heard } = await hearing()
  const shown = (persisted: boolean) => window.dispatchEvent(Object.assign(new Event('pageshow'), { persisted }))
  shown(false)
  vi.advanceTimersByTime(1)
  expect(Connection.all, 'a page shown for the first time has its connection').toHaveLength(1)
  window.dispatchEvent(new Event('pagehide'))
  look(true)
  expect(standing()).toHaveLength(0)

  look(false)
  shown(true)
  vi.advanceTimersByTime(1)
  expect(standing()).toHaveLength(1)
  standing()[0]!.tell('saved', 'after')
  expect(heard).toEqual(['gone', 'after'])
})
