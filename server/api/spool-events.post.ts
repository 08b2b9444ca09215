import { spoolEventSchema } from '#shared/entries/spools'
import { entry } from '../doors/doors'
import { saveSpoolEvent } from '../records/spools/spools'

export default entry(spoolEventSchema, (tx, body, personId) => saveSpoolEvent(tx, body, personId))
