import { entry } from '../doors/doors'
import { addShelfPart } from '../records/printers/stack-change'

export default entry('/api/parts', addShelfPart)
