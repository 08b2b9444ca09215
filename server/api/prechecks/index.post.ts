import { precheckSchema } from '#shared/entries/prepare'
import { entry } from '../../doors/doors'
import { savePrecheck } from '../../records/prepare/prechecks'

export default entry(precheckSchema, (tx, body, personId) => savePrecheck(tx, body, personId))
