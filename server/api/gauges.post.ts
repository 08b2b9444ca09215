import { entry } from '../doors/doors'
import { gaugeKind, saveGauge } from '../records/nozzles/gauges'

export default entry('/api/gauges', async (tx, body, personId) =>
  saveGauge(tx, body, personId, await gaugeKind(tx, body.replaces)),
)
