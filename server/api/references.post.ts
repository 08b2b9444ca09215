import { entry } from '../doors/doors'
import { addReference } from '../records/sensors/references'

export default entry('/api/references', addReference)
