import { edit } from '../../../doors/doors'
import { editRecord } from '../../../records/entry/edits'

export default edit((tx, kind, id, body, personId) =>
  editRecord(tx, kind, id, body.version, body.values, personId, body.confirmed),
)
