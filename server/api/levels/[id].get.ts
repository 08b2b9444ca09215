import { answering, pathId } from '../../doors/doors'
import { levelPage } from '../../records/level/levels'

export default answering('/api/levels/{id}', (db, event) => levelPage(db, pathId(event, 'This printer')))
