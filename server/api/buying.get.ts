import { answering } from '../doors/doors'
import { buying } from '../records/bench/equip'

export default answering('/api/buying', buying)
