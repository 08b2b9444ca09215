import { fittingSchema } from '#shared/entries/printers'
import { entry } from '../doors/doors'
import { saveFitting } from '../records/printers/fittings'

export default entry(fittingSchema, (tx, body, personId) => saveFitting(tx, body, personId))
