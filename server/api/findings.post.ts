import { entry } from '../doors/doors'
import { saveFinding } from '../records/diagnosis/save'

export default entry('/api/findings', saveFinding)
