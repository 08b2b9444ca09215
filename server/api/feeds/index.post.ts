import { entry } from '../../doors/doors'
import { addFeed } from '../../records/due/feeds'

export default entry('/api/feeds', addFeed)
