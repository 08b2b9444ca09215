import { entry } from '../doors/doors'
import { addMaterialValue } from '../records/materials/materials'

export default entry('/api/material-values', addMaterialValue)
