import { dryingSchema } from '#shared/entries'
import { saveDrying } from '../records/dryings'

export default entry(dryingSchema, (tx, body, personId) => saveDrying(tx, body, personId))
