import { entry } from '../../doors/doors'
import { addAlike } from '../../records/entry/alike'
import { addSpool } from '../../records/spools/spools'

export default entry('/api/spools', (tx, body, personId) =>
  addAlike(tx, body, (c, spool) => addSpool(c, spool, personId)),
)
