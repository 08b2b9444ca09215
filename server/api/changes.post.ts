import { changeSchema } from '#shared/entries'
import { saveChange } from '../records/stacks'

export default entry(changeSchema, (tx, body, personId) => saveChange(tx, body, personId))
