import { listJobs } from '../../records/jobs'

export default answering(db => listJobs(db))
