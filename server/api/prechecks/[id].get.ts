import { answering, pathId } from '../../doors/doors'
import { precheckPage } from '../../records/prepare/prechecks'

export default answering((db, event) => precheckPage(db, pathId(event, 'This check')))
