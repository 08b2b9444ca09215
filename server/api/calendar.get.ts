import { serving } from '../doors/files'
import { calendarOf } from '../records/due/calendar'

export default serving('/api/calendar', async db => ({
  type: 'text/calendar; charset=utf-8',
  bytes: Buffer.from(await calendarOf(db)),
}))
