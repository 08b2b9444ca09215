import { buying } from '../records/equip'

export default answering(db => buying(db))
