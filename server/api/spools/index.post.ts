import { spoolSchema } from '#shared/entries'
import { addSpool } from '../../records/stores'

export default entry(spoolSchema, (tx, body, personId) => addSpool(tx, body, personId))
