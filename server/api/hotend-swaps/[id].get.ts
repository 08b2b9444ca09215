import { answering, pathId } from '../../doors/doors'
import { hotendOffer } from '../../records/change/hotend'

export default answering('/api/hotend-swaps/{id}', (db, event) => hotendOffer(db, pathId(event, 'This head')))
