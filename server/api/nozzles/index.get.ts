import { answering } from '../../doors/doors'
import { listNozzles } from '../../records/nozzles/nozzles'

export default answering(db => listNozzles(db))
