import { changeoverSchema } from '#shared/entries/prepare'
import { entry } from '../doors/doors'
import { saveChangeover } from '../records/prepare/changeovers'

export default entry(changeoverSchema, (tx, body, personId) => saveChangeover(tx, body, personId))
