import { soakSchema } from '#shared/entries/prepare'
import { entry } from '../doors/doors'
import { saveSoak } from '../records/prepare/soaks'

export default entry(soakSchema, (tx, body, personId) => saveSoak(tx, body, personId))
