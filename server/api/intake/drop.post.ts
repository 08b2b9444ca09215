import { asking } from '../../doors/doors'
import { forgetStage } from '../../records/intake/stage'

export default asking('/api/intake/drop', async (db, { stage }) => {
  await forgetStage(db, stage)
  return {}
})
