import { nozzleSchema } from '#shared/entries'
import { entry } from '../../doors/doors'
import { addNozzle } from '../../records/nozzles/nozzles'

export default entry(nozzleSchema, addNozzle)
