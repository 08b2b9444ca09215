import { answering, pathId } from '../../doors/doors'
import { clogOffer } from '../../records/change/clog'

export default answering('/api/clogs/{id}', (db, event) => clogOffer(db, pathId(event, 'This head')))
