import { soakSchema } from '#shared/entries'
import { saveSoak } from '../records/dryings'

export default entry(soakSchema, (tx, body, personId) => saveSoak(tx, body, personId))
