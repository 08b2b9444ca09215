import { shelfPartSchema } from '#shared/entries/printers'
import { entry } from '../doors/doors'
import { addShelfPart } from '../records/printers/stack-change'

export default entry(shelfPartSchema, (tx, body, personId) => addShelfPart(tx, body, personId))
