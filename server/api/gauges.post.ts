import { entry } from '../doors/doors'
import { saveGauge } from '../records/nozzles/gauges'

export default entry('/api/gauges', (tx, body, personId) => saveGauge(tx, body, personId))
