import { fittingSchema } from '#shared/entries'
import { saveFitting } from '../records/fittings'

export default entry(fittingSchema, (tx, body, personId) => saveFitting(tx, body, personId))
