import { entry } from '../../doors/doors'
import { addAlike } from '../../records/entry/alike'
import { addNozzle } from '../../records/nozzles/nozzles'

export default entry('/api/nozzles', (tx, body, personId) =>
  addAlike(tx, body, (c, nozzle) => addNozzle(c, nozzle, personId)),
)
