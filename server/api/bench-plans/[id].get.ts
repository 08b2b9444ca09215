import { READS } from '#shared/api'
import { answering, pathId, queryOf } from '../../doors/doors'
import { benchPlan } from '../../records/flow/plan'

export default answering('/api/bench-plans/{id}', (db, event) =>
  benchPlan(db, pathId(event, 'This head'), queryOf(event, READS['/api/bench-plans/{id}'].query).spool ?? null),
)
