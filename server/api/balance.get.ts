/** What the balance reads. With the stand-in, the spool named is put on it first. */
import { READS } from '#shared/api'
import { answering, queryOf } from '../doors/doors'
import { expectedGrossG } from '../records/spools/weighing'
import { Refusal } from '../records/entry/refusal'
import { askOnce } from '../telemetry/link'
import { theHub } from '../telemetry/telemetry'

export default answering('/api/balance', async (db, event) => {
  const hub = theHub()
  if (hub.balance === null)
    throw new Refusal({ type: 'about:blank', status: 409, title: 'No balance is connected; type the weight' })
  const { spool } = queryOf(event, READS['/api/balance'].query)
  let line: string
  try {
    line = await askOnce(hub.balance, [
      ...(hub.standIns && spool !== undefined ? [`P ${(await expectedGrossG(db, spool)).toFixed(1)}`] : []),
      'S',
    ])
  } catch (error) {
    if (error instanceof Refusal) throw error
    throw new Refusal({ type: 'about:blank', status: 409, title: 'The balance does not answer; type the weight' })
  }
  const read = /^(-?\d+(?:\.\d+)?) g$/.exec(line)
  if (!read)
    throw new Refusal({
      type: 'about:blank',
      status: 409,
      title: `The balance answered "${line.slice(0, 40)}", which is no weight; type it`,
    })
  return { grossG: Number(read[1]), standIn: hub.standIns }
})
