/** What a balance reads. With the stand-ins, the spool or the blob that is named is put on it first. */
import type { H3Event } from 'h3'
import { READS } from '#shared/api'
import type { Database } from '../db/client'
import { answering, queryOf } from '../doors/doors'
import { blobOnPan } from '../records/flow/stand-in'
import { expectedGrossG } from '../records/spools/weighing'
import { Refusal } from '../records/entry/refusal'
import { askOnce } from '../telemetry/link'
import { theHub } from '../telemetry/telemetry'

const conflict = (title: string) => new Refusal({ type: 'about:blank', status: 409, title })

async function weigh(db: Database, event: H3Event) {
  const hub = theHub()
  const { spool, bench, line } = queryOf(event, READS['/api/balance'].query)
  // blobs go on the fine one where there is one
  const balance = bench === undefined ? hub.balance : (hub.fineBalance ?? hub.balance)
  if (balance === null) throw conflict('No balance is connected; type the weight')
  const put: string[] = []
  if (hub.standIns && spool !== undefined) put.push(`P ${(await expectedGrossG(db, spool)).toFixed(1)}`)
  if (hub.standIns && bench !== undefined) put.push(await blobOnPan(db, bench, line ?? -1))
  let said: string
  try {
    said = await askOnce(balance, [...put, 'S'])
  } catch (error) {
    if (error instanceof Refusal) throw error
    throw conflict('The balance does not answer; type the weight')
  }
  const read = /^(-?\d+(?:\.(\d+))?) g$/.exec(said)
  if (!read) throw conflict(`The balance answered "${said.slice(0, 40)}", which is no weight; type it`)
  return { grossG: Number(read[1]), stepG: 10 ** -(read[2]?.length ?? 0), standIn: hub.standIns }
}

/** What stands on the pan is that of who asks. */
export default answering('/api/balance', weigh, { alone: true })
