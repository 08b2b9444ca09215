import { changeoverSchema } from '#shared/entries'
import { saveChangeover } from '../records/changeovers'

export default entry(changeoverSchema, (tx, body, personId) => saveChangeover(tx, body, personId))
