import { runsQuery } from '#shared/api'
import { answering, queryOf } from '../doors/doors'
import { listRuns } from '../records/runs/runs'

export default answering('/api/runs', (db, event) => {
  const q = queryOf(event, runsQuery)
  return listRuns(db, q.limit, q.after)
})
