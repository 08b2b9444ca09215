import { entry } from '../doors/doors'
import { savePlan } from '../records/chambers/plans'

export default entry('/api/plans', savePlan)
