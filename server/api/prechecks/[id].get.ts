import { answering, pathId } from '../../doors/doors'
import { precheckPage } from '../../records/prepare/prechecks'

export default answering('/api/prechecks/{id}', (db, event) => precheckPage(db, pathId(event, 'This check')))
