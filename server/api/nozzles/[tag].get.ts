import { nozzlePage } from '../../records/nozzles'

export default answering((db, event) => nozzlePage(db, decodeURIComponent(getRouterParam(event, 'tag')!)))
