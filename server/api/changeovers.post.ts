import { entry } from '../doors/doors'
import { saveChangeover } from '../records/prepare/changeovers'

export default entry('/api/changeovers', saveChangeover)
