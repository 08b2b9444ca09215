import { answering, actor } from '../doors/doors'
import { shop } from '../records/shop/shop'

export default answering('/api/shop', async (db, event) => ({ ...(await shop(db)), person: await actor(event, db) }))
