import { answering, pathId } from '../../doors/doors'
import { procedurePage } from '../../records/change/procedures'

export default answering('/api/procedures/{id}', (db, event) => procedurePage(db, pathId(event, 'This procedure')))
