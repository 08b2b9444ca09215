import { entry } from '../doors/doors'
import { saveSpoolEvent } from '../records/spools/spools'

export default entry('/api/spool-events', saveSpoolEvent)
