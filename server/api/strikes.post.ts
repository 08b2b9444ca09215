import { entry } from '../doors/doors'
import { saveStrike } from '../records/entry/strikes'

export default entry('/api/strikes', saveStrike)
