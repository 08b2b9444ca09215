import { entry } from '../../doors/doors'
import { addSpool } from '../../records/spools/spools'

export default entry('/api/spools', addSpool)
