import { runSchema } from '#shared/entries'
import { saveRun } from '../records/runs'

export default entry(runSchema, (tx, body, personId) => saveRun(tx, body, personId))
