import { spoolEventSchema } from '#shared/entries'
import { saveSpoolEvent } from '../records/spools'

export default entry(spoolEventSchema, (tx, body, personId) => saveSpoolEvent(tx, body, personId))
