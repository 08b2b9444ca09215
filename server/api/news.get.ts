/** Server-sent events: what was saved, so that every open screen shows it. */
import { createEventStream } from 'h3'
import { streaming } from '../doors/doors'
import { hearNews } from '../doors/news'

const BEAT_MS = 20_000

export default streaming('/api/news', event => {
  const stream = createEventStream(event)
  const forget = hearNews(told => void stream.push({ event: 'saved', data: told }))
  const beat = setInterval(() => void stream.push({ event: 'beat', data: '' }), BEAT_MS)
  stream.onClosed(() => {
    clearInterval(beat)
    forget()
  })
  void stream.push({ event: 'beat', data: '' }) // a listener knows at once that it is heard
  return stream.send()
})
