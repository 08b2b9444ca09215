import { entry } from '../../doors/doors'
import { addCase } from '../../records/diagnosis/save'

export default entry('/api/cases', addCase)
