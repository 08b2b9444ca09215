import { entry } from '../doors/doors'
import { addBed } from '../records/level/beds'

export default entry('/api/beds', addBed)
