import { asking } from '../../doors/doors'
import { makePrecheck } from '../../records/prepare/prechecks'

export default asking('/api/prechecks/preview', (db, body) => makePrecheck(db, body))
