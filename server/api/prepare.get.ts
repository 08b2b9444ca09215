import { answering } from '../doors/doors'
import { prepare } from '../records/prepare/prepare'

export default answering('/api/prepare', prepare)
