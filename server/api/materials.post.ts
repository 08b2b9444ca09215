import { materialSchema } from '#shared/entries'
import { addMaterial } from '../records/materials'

export default entry(materialSchema, (tx, body, personId) => addMaterial(tx, body, personId))
