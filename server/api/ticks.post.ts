import { entry } from '../doors/doors'
import { saveTick } from '../records/change/procedures'

export default entry('/api/ticks', saveTick)
