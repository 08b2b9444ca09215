import { materialValueSchema } from '#shared/entries/materials'
import { entry } from '../doors/doors'
import { addMaterialValue } from '../records/materials/materials'

export default entry(materialValueSchema, (tx, body, personId) => addMaterialValue(tx, body, personId))
