import { stageQuery } from '#shared/entries/intake'
import { answering, queryOf } from '../../doors/doors'
import { progressOf } from '../../records/intake/stage'

export default answering('/api/intake/progress', (db, event) => progressOf(db, queryOf(event, stageQuery).stage))
