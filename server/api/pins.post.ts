import { entry } from '../doors/doors'
import { addPin } from '../records/pins/pins'

export default entry('/api/pins', addPin)
