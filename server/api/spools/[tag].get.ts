import { answering, pathText } from '../../doors/doors'
import { spoolPage } from '../../records/spools/page'

export default answering('/api/spools/{tag}', (db, event) => spoolPage(db, pathText(event, 'tag')))
