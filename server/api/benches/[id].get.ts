import { answering, pathId } from '../../doors/doors'
import { benchPage } from '../../records/flow/benches'

export default answering('/api/benches/{id}', (db, event) => benchPage(db, pathId(event, 'This bench')))
