import { answering } from '../doors/doors'
import { changePage } from '../records/change/board'

export default answering('/api/change', changePage)
