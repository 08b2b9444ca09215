import { spoolPage } from '../../records/prepare'

export default answering((db, event) => spoolPage(db, getRouterParam(event, 'tag') ?? ''))
