import { answering } from '../../doors/doors'
import { listBenches } from '../../records/flow/benches'

export default answering('/api/benches', listBenches)
