import { personSchema } from '#shared/entries/shop'
import { entry } from '../doors/doors'
import { addPerson } from '../records/shop/people'

export default entry(personSchema, (tx, body) => addPerson(tx, body))
