/**
 * Server-sent events: what was saved, so that every open screen shows it, and what each printer reports, or since when
 * one is lost. One stream for both, as a browser has few connections for all its tabs.
 */
import { createEventStream } from 'h3'
import { streaming } from '../doors/doors'
import { hearNews, quietMs } from '../doors/news'
import { theHub } from '../telemetry/telemetry'

const BEAT_MS = 20_000

export default streaming('/api/events', event => {
  const hub = theHub()
  const stream = createEventStream(event)
  const push = (name: string, data: string) => void stream.push({ event: name, data })
  const live = (report: unknown) => push('live', JSON.stringify(report))
  const forget = [hub.hear(live), hearNews(told => push('saved', told))]
  const beat = setInterval(() => push('beat', ''), BEAT_MS)
  stream.onClosed(() => {
    clearInterval(beat)
    for (const f of forget) f()
  })
  // a listener knows at once that it is heard, and whether there was something to hear just before
  push('beat', String(quietMs()))
  push(
    'links',
    JSON.stringify({
      printers: Object.keys(hub.links),
      balance: hub.balance !== null,
      fineBalance: hub.fineBalance !== null,
      microscope: hub.microscope !== null,
      thermometer: hub.thermometer !== null,
      standIns: hub.standIns,
    }),
  )
  for (const report of hub.all()) live(report)
  return stream.send()
})
