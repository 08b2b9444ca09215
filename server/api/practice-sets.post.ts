import { entry } from '../doors/doors'
import { addPracticeSet } from '../records/materials/materials'

export default entry('/api/practice-sets', addPracticeSet)
