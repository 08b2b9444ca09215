import { dryerSchema } from '#shared/entries'
import { addDryer } from '../records/dryings'

export default entry(dryerSchema, (tx, body, personId) => addDryer(tx, body, personId))
