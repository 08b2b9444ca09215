import { ENTERED_KINDS, type EnteredKind } from '#shared/answers/again'
import { answering, pathId, pathText } from '../../../doors/doors'
import { enteredAs } from '../../../records/entry/again'
import { notFound } from '../../../records/entry/refusal'

export default answering('/api/entered/{kind}/{id}', (db, event) => {
  const kind = pathText(event, 'kind') as EnteredKind
  if (!ENTERED_KINDS.includes(kind)) notFound('This kind of entry')
  return enteredAs(db, kind, pathId(event, 'This entry'))
})
