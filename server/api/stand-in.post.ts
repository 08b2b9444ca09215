/**
 * What a hand would do at the stand-ins: heaters and door of a printer, probes of the thermometer. Only stand-ins are
 * reached by it; nothing heats a real printer from here.
 */
import type { AskBody } from '#shared/api'
import type { Database } from '../db/client'
import { asking } from '../doors/doors'
import { Refusal, refuseField } from '../records/entry/refusal'
import { nameOfPrinter } from '../records/printers/printers'
import { placeOfSensor } from '../records/sensors/checks'
import { askOnce } from '../telemetry/link'
import { theHub } from '../telemetry/telemetry'

const COMMAND = { nozzle: 'M104', bed: 'M140', chamber: 'M141' } as const
type Asked = AskBody<'/api/stand-in'>

export default asking('/api/stand-in', async (db, body) => {
  if (!theHub().standIns)
    throw new Refusal({
      type: 'about:blank',
      status: 404,
      title: 'There are no stand-ins here; set the printer at its own panel',
    })
  const { address, lines } = await told(db, body)
  try {
    await askOnce(address, lines)
  } catch {
    throw new Refusal({ type: 'about:blank', status: 409, title: 'The stand-in does not answer' })
  }
  return { done: true as const }
})

/** Which stand-in is told, and what. */
async function told(db: Database, body: Asked): Promise<{ address: string; lines: string[] }> {
  const hub = theHub()
  if (body.what === 'set' || body.what === 'door') {
    const address = hub.links[body.printer]
    if (!address) refuseField('printer', 'There is no stand-in for this printer')
    const head = body.what === 'set' && body.heater === 'nozzle' ? ` T${body.head}` : ''
    return {
      address,
      lines: [body.what === 'set' ? `${COMMAND[body.heater]}${head} S${body.celsius}` : `door ${body.open ? 1 : 0}`],
    }
  }
  const address = hub.thermometer ?? refuseField('what', 'There is no stand-in thermometer')
  const name = (await nameOfPrinter(db, body.printerId)) ?? refuseField('printerId', 'This printer is not known')
  if (body.what === 'probes')
    return {
      address,
      lines: [1, 2, 3, 4].map(channel => {
        const probe = body.at.find(p => p.channel === channel)
        return probe ? `A ${channel} ${name} air ${probe.mm.join(' ')}` : `A ${channel}`
      }),
    }
  const { printerId, zone, headId, channel } = body
  const place = await placeOfSensor(db, { printerId, zone, headId })
  return { address, lines: [`A ${channel} ${place!}`] }
}
