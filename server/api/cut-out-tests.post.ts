import { entry } from '../doors/doors'
import { saveCutOutTest } from '../records/chambers/plans'

export default entry('/api/cut-out-tests', saveCutOutTest)
