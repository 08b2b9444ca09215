import { nozzleSchema } from '#shared/entries/nozzles'
import { entry } from '../../doors/doors'
import { addNozzle } from '../../records/nozzles/nozzles'

export default entry(nozzleSchema, addNozzle)
