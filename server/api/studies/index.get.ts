import { answering } from '../../doors/doors'
import { listStudies } from '../../records/studies/studies'

export default answering('/api/studies', listStudies)
