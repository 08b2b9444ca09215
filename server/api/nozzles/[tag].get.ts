import { nozzlePage } from '../../records/nozzles'

export default answering((db, event) => nozzlePage(db, pathText(event, 'tag')))
