import { annealSchema } from '#shared/entries'
import { saveAnneal } from '../records/dryings'

export default entry(annealSchema, (tx, body, personId) => saveAnneal(tx, body, personId))
