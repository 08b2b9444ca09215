import { practiceSetSchema } from '#shared/entries/materials'
import { entry } from '../doors/doors'
import { addPracticeSet } from '../records/materials/materials'

export default entry(practiceSetSchema, (tx, body, personId) => addPracticeSet(tx, body, personId))
