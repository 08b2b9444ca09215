import { answering, pathId } from '../../doors/doors'
import { jobPage } from '../../records/runs/jobs'

export default answering((db, event) => jobPage(db, pathId(event, 'This job')))
