import { z } from 'zod'
import { listRuns } from '../records/lists'
import { Refusal } from '../records/refusal'

const query = z.object({ limit: z.coerce.number().int().min(1).max(200).default(50), after: z.string().regex(/^\d{4}-[\dT:.Z-]+~\d+$/).optional() })
export default answering((db, event) => {
  const q = query.safeParse(getQuery(event))
  if (!q.success) throw new Refusal({ type: 'urn:iron-nozzle:field', status: 422, title: 'limit is 1 to 200; after is the cursor of the page before' })
  const [at, id] = q.data.after?.split('~') ?? []
  return listRuns(db, q.data.limit, at && id ? { at, id: Number(id) } : null)
})
