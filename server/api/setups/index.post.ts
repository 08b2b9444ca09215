import { entry } from '../../doors/doors'
import { addSetup } from '../../records/pictures/setups'

export default entry('/api/setups', addSetup)
