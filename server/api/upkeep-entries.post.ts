import { entry } from '../doors/doors'
import { saveUpkeep } from '../records/upkeep/upkeep'

export default entry('/api/upkeep-entries', saveUpkeep)
