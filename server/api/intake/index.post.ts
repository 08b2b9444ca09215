import { database } from '../../db/database'
import { entry } from '../../doors/doors'
import { takeIn } from '../../records/intake/intake'

export default entry('/api/intake', async (tx, body, personId) => takeIn(tx, body, personId, await database()))
