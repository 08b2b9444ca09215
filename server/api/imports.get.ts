import { answering } from '../doors/doors'
import { listImports } from '../records/intake/imports'

export default answering('/api/imports', listImports)
