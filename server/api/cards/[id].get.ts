import { answering, pathId } from '../../doors/doors'
import { listCards } from '../../records/cards/cards'

export default answering('/api/cards/{id}', (db, event) =>
  listCards(db, { materialId: pathId(event, 'This material') }),
)
