import { entry } from '../../doors/doors'
import { addStudy } from '../../records/studies/studies'

export default entry('/api/studies', addStudy)
