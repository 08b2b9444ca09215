import { entry } from '../doors/doors'
import { planUsual } from '../records/upkeep/tasks'

export default entry('/api/upkeep-plans', planUsual)
