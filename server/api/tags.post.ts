import { entry } from '../doors/doors'
import { saveServiceTag } from '../records/change/service'

export default entry('/api/tags', saveServiceTag)
