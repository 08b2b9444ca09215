import { answering } from '../doors/doors'
import { upkeepPage } from '../records/upkeep/upkeep'

export default answering('/api/upkeep', db => upkeepPage(db))
