import { entry } from '../doors/doors'
import { saveWarmUpPlace } from '../records/prepare/warm-ups'

export default entry('/api/warm-up-places', saveWarmUpPlace)
