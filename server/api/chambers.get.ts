import { answering } from '../doors/doors'
import { chambersPage } from '../records/chambers/surveys'

export default answering('/api/chambers', chambersPage)
