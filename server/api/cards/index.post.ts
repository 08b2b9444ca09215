import { entry } from '../../doors/doors'
import { addCard } from '../../records/cards/cards'

export default entry('/api/cards', addCard)
