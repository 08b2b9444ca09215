import { jobSchema } from '#shared/entries'
import { saveJob } from '../../records/jobs'

export default entry(jobSchema, (tx, body, personId) => saveJob(tx, body, personId))
