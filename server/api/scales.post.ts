import { entry } from '../doors/doors'
import { saveScale } from '../records/pictures/setups'

export default entry('/api/scales', saveScale)
