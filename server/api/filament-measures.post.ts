import { entry } from '../doors/doors'
import { saveFilamentMeasure } from '../records/flow/weigh'

export default entry('/api/filament-measures', saveFilamentMeasure)
