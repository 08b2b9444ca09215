import { answering, pathId } from '../../doors/doors'
import { casePage } from '../../records/diagnosis/cases'

export default answering('/api/cases/{id}', (db, event) => casePage(db, pathId(event, 'This case')))
