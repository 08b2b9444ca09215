import { entry } from '../doors/doors'
import { saveDrying } from '../records/prepare/dryings'

export default entry('/api/dryings', saveDrying)
