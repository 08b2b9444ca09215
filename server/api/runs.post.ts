import { entry } from '../doors/doors'
import { keepBenches } from '../records/runs/corrections'
import { saveRun } from '../records/runs/runs'

export default entry('/api/runs', async (tx, body, personId) => {
  const saved = await saveRun(tx, body, personId)
  if (body.replaces) await keepBenches(tx, [[body.replaces.id, saved.runId]])
  return saved
})
