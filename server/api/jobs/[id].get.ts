import { jobPage } from '../../records/jobs'
import { notFound } from '../../records/refusal'

export default answering(async (db, event) => {
  const id = Number(getRouterParam(event, 'id'))
  return Number.isInteger(id) ? await jobPage(db, id) : notFound('This job')
})
