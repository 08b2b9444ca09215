import { notFound } from '../../records/refusal'
import { precheckPage } from '../../records/prechecks'

export default answering(async (db, event) => {
  const id = Number(getRouterParam(event, 'id'))
  return Number.isInteger(id) ? await precheckPage(db, id) : notFound('This check')
})
