import { entry } from '../doors/doors'
import { saveBlob } from '../records/flow/weigh'

export default entry('/api/blobs', saveBlob)
