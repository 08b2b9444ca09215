/** What the thermometer reads. With the stand-in, the probe of the channel is put at the sensor named first. */
import { READS } from '#shared/api'
import { answering, queryOf } from '../doors/doors'
import { placeOfSensor } from '../records/sensors/checks'
import { Refusal } from '../records/entry/refusal'
import { askOnce } from '../telemetry/link'
import { readChannels } from '../telemetry/report'
import { theHub } from '../telemetry/telemetry'

const refuse = (title: string): never => {
  throw new Refusal({ type: 'about:blank', status: 409, title })
}

export default answering('/api/thermometer', async (db, event) => {
  const { thermometer, standIns } = theHub()
  if (thermometer === null) return refuse('No thermometer is connected; type what it reads')
  const { channel, printer, zone, head } = queryOf(event, READS['/api/thermometer'].query)
  const place =
    standIns && printer !== undefined && zone !== undefined
      ? await placeOfSensor(db, { printerId: printer, zone, headId: head ?? null })
      : null
  let line: string
  try {
    line = await askOnce(thermometer, [...(place === null ? [] : [`A ${channel} ${place}`]), 'R'])
  } catch {
    return refuse('The thermometer does not answer; type what it reads')
  }
  const channels = readChannels(line)
  if (channels === null)
    return refuse(`The thermometer answered "${line.slice(0, 40)}", which are no temperatures; type them`)
  return { channels, standIn: standIns }
})
