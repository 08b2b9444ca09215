import { jobPage } from '../../records/jobs'

export default answering((db, event) => jobPage(db, pathId(event, 'This job')))
