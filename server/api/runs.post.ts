import { runSchema } from '#shared/entries/runs'
import { entry } from '../doors/doors'
import { saveRun } from '../records/runs/runs'

export default entry(runSchema, (tx, body, personId) => saveRun(tx, body, personId))
