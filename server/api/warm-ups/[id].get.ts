import { answering, pathId } from '../../doors/doors'
import { listWarmUps } from '../../records/prepare/warm-ups'

export default answering('/api/warm-ups/{id}', (db, event) => listWarmUps(db, pathId(event, 'This printer')))
