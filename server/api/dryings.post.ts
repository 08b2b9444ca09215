import { dryingSchema } from '#shared/entries/prepare'
import { entry } from '../doors/doors'
import { saveDrying } from '../records/prepare/dryings'

export default entry(dryingSchema, (tx, body, personId) => saveDrying(tx, body, personId))
