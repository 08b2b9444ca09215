import { entry } from '../doors/doors'
import { saveStudyReading } from '../records/studies/studies'

export default entry('/api/study-readings', saveStudyReading)
