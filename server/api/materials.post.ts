import { entry } from '../doors/doors'
import { addMaterial } from '../records/materials/materials'

export default entry('/api/materials', addMaterial)
