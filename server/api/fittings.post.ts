import { entry } from '../doors/doors'
import { saveFitting } from '../records/printers/fittings'

export default entry('/api/fittings', saveFitting)
