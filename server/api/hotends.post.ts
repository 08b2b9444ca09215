import { entry } from '../doors/doors'
import { addHotend } from '../records/printers/bench'

export default entry('/api/hotends', addHotend)
