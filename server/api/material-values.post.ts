import { materialValueSchema } from '#shared/entries'
import { addMaterialValue } from '../records/materials'

export default entry(materialValueSchema, (tx, body, personId) => addMaterialValue(tx, body, personId))
