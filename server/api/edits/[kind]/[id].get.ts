import { answering, pathId, pathKind } from '../../../doors/doors'
import { listEdits } from '../../../records/entry/edits'

export default answering('/api/edits/{kind}/{id}', (db, event) =>
  listEdits(db, pathKind(event), pathId(event, 'This record')),
)
