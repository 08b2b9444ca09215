import { entry } from '../../doors/doors'
import { beginProcedure } from '../../records/change/procedures'

export default entry('/api/procedures', beginProcedure)
