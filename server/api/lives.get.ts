import { answering } from '../doors/doors'
import { typeLives } from '../records/nozzles/lives'

export default answering('/api/lives', typeLives)
