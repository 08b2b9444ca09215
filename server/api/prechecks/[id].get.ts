import { precheckPage } from '../../records/prechecks'

export default answering((db, event) => precheckPage(db, pathId(event, 'This check')))
