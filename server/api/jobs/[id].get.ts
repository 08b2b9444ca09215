import { answering, pathId } from '../../doors/doors'
import { jobPage } from '../../records/runs/jobs'

export default answering('/api/jobs/{id}', (db, event) => jobPage(db, pathId(event, 'This job')))
