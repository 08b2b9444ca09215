import { nozzleTypeSchema } from '#shared/entries'
import { addNozzleType } from '../records/stores'

export default entry(nozzleTypeSchema, (tx, body, personId) => addNozzleType(tx, body, personId))
