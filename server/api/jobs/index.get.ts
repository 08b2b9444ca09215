import { answering } from '../../doors/doors'
import { listJobs } from '../../records/runs/jobs'

export default answering('/api/jobs', listJobs)
