import { actor, asking } from '../../doors/doors'
import { lookAt } from '../../records/intake/intake'

export default asking('/api/intake/look', async (db, body, event) => lookAt(db, body, (await actor(event, db)).id))
