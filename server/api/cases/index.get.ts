import { answering } from '../../doors/doors'
import { listCases } from '../../records/diagnosis/cases'

export default answering('/api/cases', listCases)
