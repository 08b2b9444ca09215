import { entry } from '../doors/doors'
import { addNozzleType } from '../records/nozzles/types'

export default entry('/api/nozzle-types', addNozzleType)
