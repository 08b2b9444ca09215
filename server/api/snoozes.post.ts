import { entry } from '../doors/doors'
import { saveSnooze } from '../records/due/snoozes'

export default entry('/api/snoozes', saveSnooze)
