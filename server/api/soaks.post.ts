import { entry } from '../doors/doors'
import { saveSoak } from '../records/prepare/soaks'

export default entry('/api/soaks', saveSoak)
