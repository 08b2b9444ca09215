import { entry } from '../doors/doors'
import { saveTick } from '../records/change/ticks'

export default entry('/api/ticks', saveTick)
