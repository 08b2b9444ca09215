import { printerSchema } from '#shared/entries'
import { addPrinter } from '../records/stacks'

export default entry(printerSchema, (tx, body, personId) => addPrinter(tx, body, personId))
