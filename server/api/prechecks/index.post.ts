import { entry } from '../../doors/doors'
import { savePrecheck } from '../../records/prepare/prechecks'

export default entry('/api/prechecks', savePrecheck)
