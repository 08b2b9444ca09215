import { precheckSchema } from '#shared/entries'
import { savePrecheck } from '../../records/prechecks'

export default entry(precheckSchema, (tx, body, personId) => savePrecheck(tx, body, personId))
