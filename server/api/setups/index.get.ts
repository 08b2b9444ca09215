import { answering } from '../../doors/doors'
import { listSetups } from '../../records/pictures/setups'

export default answering('/api/setups', listSetups)
