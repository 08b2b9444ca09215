import { answering } from '../doors/doors'
import { dueList } from '../records/due/due'

export default answering('/api/due', db => dueList(db))
