import { warmUpSchema } from '#shared/entries'
import { saveWarmUp } from '../records/soaks'

export default entry(warmUpSchema, (tx, body, personId) => saveWarmUp(tx, body, personId))
