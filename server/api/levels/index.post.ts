import { entry } from '../../doors/doors'
import { saveLevel } from '../../records/level/levels'

export default entry('/api/levels', saveLevel)
