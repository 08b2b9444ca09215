import { entry } from '../doors/doors'
import { saveAnneal } from '../records/prepare/anneals'

export default entry('/api/anneals', saveAnneal)
