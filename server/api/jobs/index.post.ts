import { entry } from '../../doors/doors'
import { saveJob } from '../../records/runs/jobs'

export default entry('/api/jobs', saveJob)
