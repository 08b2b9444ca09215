import { endingSchema } from '#shared/entries'
import { saveEnding } from '../records/dryings'

export default entry(endingSchema, (tx, body, personId) => saveEnding(tx, body, personId))
