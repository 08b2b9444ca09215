import { spoolSchema } from '#shared/entries/spools'
import { entry } from '../../doors/doors'
import { addSpool } from '../../records/spools/spools'

export default entry(spoolSchema, (tx, body, personId) => addSpool(tx, body, personId))
