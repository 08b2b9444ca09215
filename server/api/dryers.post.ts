import { dryerSchema } from '#shared/entries/prepare'
import { entry } from '../doors/doors'
import { addDryer } from '../records/prepare/dryers'

export default entry(dryerSchema, (tx, body, personId) => addDryer(tx, body, personId))
