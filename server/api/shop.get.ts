import { shop } from '../records/lists'

export default answering(async (db, event) => ({ ...(await shop(db)), person: await actor(event, db) }))
