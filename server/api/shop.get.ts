import { answering, actor } from '../doors/doors'
import { together } from '../doors/together'
import { shop } from '../records/shop/shop'

const onNetwork = process.env.IRON_NOZZLE_LAN === '1'

export default answering(
  '/api/shop',
  async (db, event) => ({
    ...(await together('/api/shop', () => shop(db))),
    onNetwork,
    person: await actor(event, db),
  }),
  { alone: true },
)
