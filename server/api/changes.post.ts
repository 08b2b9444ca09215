import { entry } from '../doors/doors'
import { saveChange } from '../records/printers/stack-change'

export default entry('/api/changes', saveChange)
