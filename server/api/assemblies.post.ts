import { entry } from '../doors/doors'
import { saveAssembly } from '../records/printers/bench'

export default entry('/api/assemblies', saveAssembly)
