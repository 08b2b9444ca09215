import { entry } from '../doors/doors'
import { addDryer } from '../records/prepare/dryers'

export default entry('/api/dryers', addDryer)
