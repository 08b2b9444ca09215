import { practiceSetSchema } from '#shared/entries'
import { addPracticeSet } from '../records/materials'

export default entry(practiceSetSchema, (tx, body, personId) => addPracticeSet(tx, body, personId))
