import { entry } from '../../doors/doors'
import { saveWarmUp } from '../../records/prepare/warm-ups'

export default entry('/api/warm-ups', saveWarmUp)
