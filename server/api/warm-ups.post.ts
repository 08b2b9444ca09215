import { warmUpSchema } from '#shared/entries/prepare'
import { entry } from '../doors/doors'
import { saveWarmUp } from '../records/prepare/warm-ups'

export default entry(warmUpSchema, (tx, body, personId) => saveWarmUp(tx, body, personId))
