import { z } from 'zod'
import { idSchema } from '#shared/entries/fields'
import { answering } from '../doors/doors'
import { listRuns } from '../records/runs/runs'
import { refuseFields } from '../records/entry/refusal'

/** The place after a page: the time and the id of its last run. */
const cursor = z.string().transform((text, ctx) => {
  const [at = '', id = ''] = text.split('~')
  const read = z.object({ at: z.iso.datetime(), id: idSchema }).safeParse({ at, id: Number(id) })
  if (read.success && !Number.isNaN(Date.parse(at))) return read.data
  ctx.addIssue({ code: 'custom', message: 'after is the cursor of the page before: a time and an id, with ~ between' })
  return z.NEVER
})
const query = z.object({
  limit: z.coerce
    .number('limit is 1 to 200')
    .int('limit is 1 to 200')
    .min(1, 'limit is 1 to 200')
    .max(200, 'limit is 1 to 200')
    .default(50),
  after: cursor.nullable().default(null),
})

export default answering((db, event) => {
  const q = query.safeParse(getQuery(event))
  if (!q.success) return refuseFields(q.error.issues.map(i => ({ field: String(i.path[0]), message: i.message })))
  return listRuns(db, q.data.limit, q.data.after)
})
