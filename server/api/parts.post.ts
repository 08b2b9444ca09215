import { shelfPartSchema } from '#shared/entries'
import { addShelfPart } from '../records/stacks'

export default entry(shelfPartSchema, (tx, body, personId) => addShelfPart(tx, body, personId))
