import { entry } from '../../doors/doors'
import { addBench } from '../../records/flow/benches'

export default entry('/api/benches', addBench)
