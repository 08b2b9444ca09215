import { entry } from '../doors/doors'
import { saveFitting } from '../records/printers/fittings'

export default entry('/api/fittings', (tx, f, personId) => saveFitting(tx, f, personId))
