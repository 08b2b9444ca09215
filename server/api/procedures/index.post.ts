import { entry } from '../../doors/doors'
import { beginProcedure } from '../../records/change/begin'

export default entry('/api/procedures', beginProcedure)
