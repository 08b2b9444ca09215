import type { H3Event } from 'h3'
import { EDITS, type EditableKind } from '#shared/entries/edits'
import { edit, pathText, pathId } from '../../../doors/doors'
import { notFound } from '../../../records/entry/refusal'
import { editRecord } from '../../../records/entry/edits'

const kindOf = (event: H3Event): EditableKind => {
  const kind = pathText(event, 'kind')
  return Object.hasOwn(EDITS, kind) ? (kind as EditableKind) : notFound('This kind of record')
}

export default edit(
  event => EDITS[kindOf(event)],
  (tx, body, personId, event) =>
    editRecord(tx, kindOf(event), pathId(event, 'This record'), body.version, body.values, personId),
)
