import { entry } from '../doors/doors'
import { saveCoolDown } from '../records/change/cool-downs'

export default entry('/api/cool-downs', saveCoolDown)
