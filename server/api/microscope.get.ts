/** What the microscope sees. With the stand-in, the nozzle named, or a stage scale, is put under it first. */
import { FILES } from '#shared/api'
import { queryOf } from '../doors/doors'
import { serving } from '../doors/files'
import { boreForStage } from '../records/nozzles/stage'
import { Refusal } from '../records/entry/refusal'
import { theHub } from '../telemetry/telemetry'

const PATIENCE_MS = 8000

export default serving('/api/microscope', async (db, event) => {
  const hub = theHub()
  const refuse = (title: string): never => {
    throw new Refusal({ type: 'about:blank', status: 409, title })
  }
  if (hub.microscope === null) return refuse('No microscope is connected; choose a picture')
  const { nozzle, every } = queryOf(event, FILES['/api/microscope'].query)
  const stage = new URLSearchParams()
  if (hub.standIns && nozzle !== undefined) {
    const { boreMm, nominalMm } = await boreForStage(db, nozzle)
    stage.set('bore', String(boreMm))
    stage.set('nominal', String(nominalMm))
  } else if (hub.standIns) stage.set('every', String(every ?? 0.01))
  try {
    const answer = await fetch(`http://${hub.microscope}/picture?${stage}`, {
      signal: AbortSignal.timeout(PATIENCE_MS),
    })
    const type = answer.headers.get('content-type') ?? ''
    if (!answer.ok || !type.startsWith('image/')) return refuse('The microscope answered no picture')
    return { type, bytes: Buffer.from(await answer.arrayBuffer()) }
  } catch (error) {
    if (error instanceof Refusal) throw error
    return refuse('The microscope does not answer; choose a picture')
  }
})
