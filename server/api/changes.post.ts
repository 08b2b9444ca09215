import { changeSchema } from '#shared/entries/printers'
import { entry } from '../doors/doors'
import { saveChange } from '../records/printers/stack-change'

export default entry(changeSchema, (tx, body, personId) => saveChange(tx, body, personId))
