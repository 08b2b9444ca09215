import { personSchema } from '#shared/entries'
import { addPerson } from '../records/stores'

export default entry(personSchema, (tx, body) => addPerson(tx, body))
