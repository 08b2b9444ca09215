import { nozzleTypeSchema } from '#shared/entries/nozzles'
import { entry } from '../doors/doors'
import { addNozzleType } from '../records/nozzles/types'

export default entry(nozzleTypeSchema, (tx, body, personId) => addNozzleType(tx, body, personId))
