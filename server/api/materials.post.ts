import { materialSchema } from '#shared/entries/materials'
import { entry } from '../doors/doors'
import { addMaterial } from '../records/materials/materials'

export default entry(materialSchema, (tx, body, personId) => addMaterial(tx, body, personId))
