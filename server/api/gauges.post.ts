import { gaugeSchema } from '#shared/entries'
import { saveGauge } from '../records/gauges'

export default entry(gaugeSchema, (tx, body, personId) => saveGauge(tx, body, personId))
