import { listNozzles } from '../../records/nozzles'

export default answering(db => listNozzles(db))
