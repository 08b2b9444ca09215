import { entry } from '../doors/doors'
import { addPrinter } from '../records/printers/stack-change'

export default entry('/api/printers', (tx, body, personId) => addPrinter(tx, body, personId))
