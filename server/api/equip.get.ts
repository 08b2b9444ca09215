import { equip } from '../records/equip'

export default answering(db => equip(db))
