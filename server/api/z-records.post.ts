import { entry } from '../doors/doors'
import { saveZRecord } from '../records/level/z-records'

export default entry('/api/z-records', saveZRecord)
