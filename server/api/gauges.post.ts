import { gaugeSchema } from '#shared/entries/nozzles'
import { entry } from '../doors/doors'
import { saveGauge } from '../records/nozzles/gauges'

export default entry(gaugeSchema, (tx, body, personId) => saveGauge(tx, body, personId))
