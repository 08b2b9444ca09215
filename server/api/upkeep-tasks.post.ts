import { entry } from '../doors/doors'
import { addUpkeepTask } from '../records/upkeep/tasks'

export default entry('/api/upkeep-tasks', addUpkeepTask)
