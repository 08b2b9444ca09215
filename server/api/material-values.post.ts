import { materialValueSchema } from '#shared/entries'
import { entry } from '../doors/doors'
import { addMaterialValue } from '../records/materials/materials'

export default entry(materialValueSchema, (tx, body, personId) => addMaterialValue(tx, body, personId))
