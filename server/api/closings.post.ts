import { entry } from '../doors/doors'
import { saveClosing } from '../records/diagnosis/save'

export default entry('/api/closings', saveClosing)
