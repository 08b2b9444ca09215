import { answering, pathId } from '../../doors/doors'
import { swapOffer } from '../../records/change/swap'

export default answering('/api/swaps/{id}', (db, event) => swapOffer(db, pathId(event, 'This head')))
