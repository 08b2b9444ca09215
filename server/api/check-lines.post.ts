import { entry } from '../doors/doors'
import { addCheckLine } from '../records/prepare/check-lines'

export default entry('/api/check-lines', addCheckLine)
