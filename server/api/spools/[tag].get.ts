import { spoolPage } from '../../records/prepare'

export default answering((db, event) => spoolPage(db, pathText(event, 'tag')))
