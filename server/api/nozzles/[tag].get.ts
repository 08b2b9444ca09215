import { answering, pathText } from '../../doors/doors'
import { nozzlePage } from '../../records/nozzles/nozzles'

export default answering('/api/nozzles/{tag}', (db, event) => nozzlePage(db, pathText(event, 'tag')))
