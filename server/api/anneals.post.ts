import { annealSchema } from '#shared/entries/prepare'
import { entry } from '../doors/doors'
import { saveAnneal } from '../records/prepare/anneals'

export default entry(annealSchema, (tx, body, personId) => saveAnneal(tx, body, personId))
