import { answering } from '../doors/doors'
import { listPins } from '../records/pins/pins'

export default answering('/api/pins', db => listPins(db))
