import { jobSchema } from '#shared/entries/runs'
import { entry } from '../../doors/doors'
import { saveJob } from '../../records/runs/jobs'

export default entry(jobSchema, (tx, body, personId) => saveJob(tx, body, personId))
