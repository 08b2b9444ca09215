import { answering } from '../doors/doors'
import { verifyPage } from '../records/sensors/checks'

export default answering('/api/verify', verifyPage)
