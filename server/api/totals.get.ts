import { READS } from '#shared/api'
import { answering, queryOf } from '../doors/doors'
import { totalsOf } from '../records/totals/totals'

export default answering('/api/totals', (db, event) => totalsOf(db, queryOf(event, READS['/api/totals'].query)))
