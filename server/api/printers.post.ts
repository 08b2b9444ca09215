import { printerSchema } from '#shared/entries/printers'
import { entry } from '../doors/doors'
import { addPrinter } from '../records/printers/stack-change'

export default entry(printerSchema, (tx, body, personId) => addPrinter(tx, body, personId))
