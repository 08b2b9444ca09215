import { entry } from '../doors/doors'
import { saveSensorCheck } from '../records/sensors/checks'

export default entry('/api/sensor-checks', saveSensorCheck)
