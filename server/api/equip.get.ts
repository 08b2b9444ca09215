import { answering } from '../doors/doors'
import { equip } from '../records/bench/equip'

export default answering('/api/equip', equip)
