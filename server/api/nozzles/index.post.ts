import { nozzleSchema } from '#shared/entries'
import { addNozzle } from '../../records/stores'

export default entry(nozzleSchema, addNozzle)
