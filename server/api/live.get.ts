/** Server-sent events: what each printer reports now, and since when one is lost. */
import { createEventStream } from 'h3'
import { streaming } from '../doors/doors'
import { theHub } from '../telemetry/telemetry'

const BEAT_MS = 20_000

export default streaming('/api/live', event => {
  const hub = theHub()
  const stream = createEventStream(event)
  const push = (live: unknown) => void stream.push({ event: 'live', data: JSON.stringify(live) })
  const forget = hub.hear(push)
  const beat = setInterval(() => void stream.push({ event: 'beat', data: '' }), BEAT_MS)
  stream.onClosed(() => {
    clearInterval(beat)
    forget()
  })
  void stream.push({
    event: 'links',
    data: JSON.stringify({
      printers: Object.keys(hub.links),
      balance: hub.balance !== null,
      fineBalance: hub.fineBalance !== null,
      microscope: hub.microscope !== null,
      thermometer: hub.thermometer !== null,
      standIns: hub.standIns,
    }),
  })
  for (const l of hub.all()) push(l)
  return stream.send()
})
