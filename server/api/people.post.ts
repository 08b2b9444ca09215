import { entry } from '../doors/doors'
import { addPerson } from '../records/shop/people'

export default entry('/api/people', addPerson)
