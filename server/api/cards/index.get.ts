import { READS } from '#shared/api'
import { answering, queryOf } from '../../doors/doors'
import { listCards } from '../../records/cards/cards'

export default answering('/api/cards', (db, event) =>
  listCards(db, { materialId: queryOf(event, READS['/api/cards'].query).material }),
)
