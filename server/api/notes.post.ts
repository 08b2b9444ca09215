import { entry } from '../doors/doors'
import { saveShiftNote } from '../records/change/service'

export default entry('/api/notes', saveShiftNote)
