import { nozzlesQuery } from '#shared/api'
import { answering, queryOf } from '../../doors/doors'
import { nozzlesAfter } from '../../records/nozzles/nozzles'

export default answering('/api/nozzles', (db, event) => {
  const { retired, ...q } = queryOf(event, nozzlesQuery)
  return nozzlesAfter(db, { ...q, retired: retired === '1' })
})
