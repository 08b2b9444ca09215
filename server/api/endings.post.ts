import { endingSchema } from '#shared/entries/log'
import { entry } from '../doors/doors'
import { saveEnding } from '../records/entry/endings'

export default entry(endingSchema, (tx, body, personId) => saveEnding(tx, body, personId))
