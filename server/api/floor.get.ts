import { answering } from '../doors/doors'
import { floor } from '../records/bench/floor'

export default answering('/api/floor', floor)
