/**
 * The stand-in's own panel: heaters and door, as a hand at the machine would. Only stand-ins are reached by it; nothing
 * heats a real printer from here.
 */
import { asking } from '../doors/doors'
import { Refusal, refuseField } from '../records/entry/refusal'
import { askOnce } from '../telemetry/link'
import { theHub } from '../telemetry/telemetry'

const COMMAND = { nozzle: 'M104', bed: 'M140', chamber: 'M141' } as const

export default asking('/api/stand-in', async (_db, body) => {
  const hub = theHub()
  if (!hub.standIns)
    throw new Refusal({
      type: 'about:blank',
      status: 404,
      title: 'There are no stand-ins here; set the printer at its own panel',
    })
  const address = hub.links[body.printer]
  if (!address) refuseField('printer', 'There is no stand-in for this printer')
  const head = body.what === 'set' && body.heater === 'nozzle' ? ` T${body.head}` : ''
  const line = body.what === 'set' ? `${COMMAND[body.heater]}${head} S${body.celsius}` : `door ${body.open ? 1 : 0}`
  try {
    await askOnce(address, [line])
  } catch {
    throw new Refusal({ type: 'about:blank', status: 409, title: 'The stand-in does not answer' })
  }
  return { done: true as const }
})
