import { answering } from '../doors/doors'
import { listHotends } from '../records/printers/hotends'

export default answering('/api/hotends', db => listHotends(db))
