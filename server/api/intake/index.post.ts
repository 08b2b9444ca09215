import { entry } from '../../doors/doors'
import { takeIn } from '../../records/intake/intake'

export default entry('/api/intake', takeIn)
