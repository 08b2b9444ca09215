import { answering } from '../../doors/doors'
import { listNozzles } from '../../records/nozzles/nozzles'

export default answering('/api/nozzles', listNozzles)
