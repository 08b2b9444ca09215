import { entry } from '../doors/doors'
import { saveSurvey } from '../records/chambers/surveys'

export default entry('/api/surveys', saveSurvey)
