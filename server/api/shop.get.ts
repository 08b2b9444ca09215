import { answering, actor } from '../doors/doors'
import { shop } from '../records/shop/shop'

const onNetwork = process.env.IRON_NOZZLE_LAN === '1'

export default answering('/api/shop', async (db, event) => ({
  ...(await shop(db)),
  onNetwork,
  person: await actor(event, db),
}))
