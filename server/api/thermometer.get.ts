/** What the thermometer reads. With the stand-in, probes are put at the sensor, or at the places, named first. */
import { READS } from '#shared/api'
import { answering, queryOf } from '../doors/doors'
import { nameOfPrinter } from '../records/printers/printers'
import { placeOfSensor } from '../records/sensors/checks'
import { Refusal } from '../records/entry/refusal'
import { askOnce } from '../telemetry/link'
import { readChannels } from '../telemetry/report'
import { theHub } from '../telemetry/telemetry'

const refuse = (title: string): never => {
  throw new Refusal({ type: 'about:blank', status: 409, title })
}

/** Its probes put at places of a chamber; those that are not named hang in the room. */
function probesAt(printer: string, at: readonly { channel: number; mm: readonly number[] }[]): string[] {
  return [1, 2, 3, 4].map(channel => {
    const probe = at.find(p => p.channel === channel)
    return probe ? `A ${channel} ${printer} air ${probe.mm.join(' ')}` : `A ${channel}`
  })
}

export default answering('/api/thermometer', async (db, event) => {
  const { thermometer, standIns } = theHub()
  if (thermometer === null) return refuse('No thermometer is connected; type what it reads')
  const { channel, printer, zone, head, at } = queryOf(event, READS['/api/thermometer'].query)
  const puts: string[] = []
  if (standIns && printer !== undefined) {
    const place = zone && (await placeOfSensor(db, { printerId: printer, zone, headId: head ?? null }))
    if (place) puts.push(`A ${channel} ${place}`)
    const name = at && (await nameOfPrinter(db, printer))
    if (at && name) puts.push(...probesAt(name, at))
  }
  let line: string
  try {
    line = await askOnce(thermometer, [...puts, 'R'])
  } catch {
    return refuse('The thermometer does not answer; type what it reads')
  }
  const channels = readChannels(line)
  if (channels === null)
    return refuse(`The thermometer answered "${line.slice(0, 40)}", which are no temperatures; type them`)
  return { channels, standIn: standIns }
})
