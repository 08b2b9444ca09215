/** Server-sent events: one line per save, so that every open screen shows it. */
import { createEventStream } from 'h3'
import { streaming } from '../doors/doors'
import { databaseClient } from '../db/database'
import { hearNews } from '../doors/news'

const BEAT_MS = 20_000

export default streaming('/api/news', async event => {
  const stream = createEventStream(event)
  let forget = () => {}
  const beat = setInterval(() => void stream.push({ event: 'beat', data: '' }), BEAT_MS)
  stream.onClosed(() => {
    clearInterval(beat)
    forget()
  })
  try {
    forget = await hearNews(await databaseClient(), what => void stream.push({ event: 'saved', data: what }))
  } catch {
    clearInterval(beat)
    setResponseStatus(event, 503)
    return { type: 'urn:iron-nozzle:database', status: 503, title: 'The database does not answer' }
  }
  void stream.push({ event: 'beat', data: '' }) // a listener knows at once that it is heard
  return stream.send()
})
