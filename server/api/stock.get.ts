import { READS } from '#shared/api'
import { answering, queryOf } from '../doors/doors'
import { stockPage } from '../records/stock/stock'

export default answering('/api/stock', (db, event) => stockPage(db, queryOf(event, READS['/api/stock'].query).days))
