import { entry } from '../../doors/doors'
import { addNozzle } from '../../records/nozzles/nozzles'

export default entry('/api/nozzles', addNozzle)
