import { pathText } from '../../doors/doors'
import { serving } from '../../doors/files'
import { calendarOf } from '../../records/due/calendar'
import { needFeed } from '../../records/due/feeds'

export default serving('/api/feeds/{token}', async (db, event) => {
  await needFeed(db, pathText(event, 'token').replace(/\.ics$/, ''))
  return { type: 'text/calendar; charset=utf-8', bytes: Buffer.from(await calendarOf(db)) }
})
