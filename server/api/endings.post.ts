import { entry } from '../doors/doors'
import { saveEnding } from '../records/entry/endings'

export default entry('/api/endings', saveEnding)
