import { answering, pathText } from '../../doors/doors'
import { nozzlePage } from '../../records/nozzles/nozzles'

export default answering((db, event) => nozzlePage(db, pathText(event, 'tag')))
