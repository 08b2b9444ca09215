import { entry } from '../doors/doors'
import { saveRun } from '../records/runs/runs'

export default entry('/api/runs', saveRun)
