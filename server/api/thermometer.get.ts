/** What the thermometer reads. */
import { answering } from '../doors/doors'
import { Refusal } from '../records/entry/refusal'
import { askOnce } from '../telemetry/link'
import { readChannels } from '../telemetry/report'
import { theHub } from '../telemetry/telemetry'

const refuse = (title: string): never => {
  throw new Refusal({ type: 'about:blank', status: 409, title })
}

/** What is read is what stands there now: each asking reads. */
const read = async () => {
  const { thermometer, standIns } = theHub()
  if (thermometer === null) return refuse('No thermometer is connected; type what it reads')
  let line: string
  try {
    line = await askOnce(thermometer, ['R'])
  } catch {
    return refuse('The thermometer does not answer; type what it reads')
  }
  const channels = readChannels(line)
  if (channels === null)
    return refuse(`The thermometer answered "${line.slice(0, 40)}", which are no temperatures; type them`)
  return { channels, standIn: standIns }
}

export default answering('/api/thermometer', read, { alone: true })
