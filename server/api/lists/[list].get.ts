import { FILES } from '#shared/api'
import { LIST_FILTERS, LIST_WORDS, type ListName } from '#shared/lists'
import { database } from '../../db/database'
import { pathText, queryOf } from '../../doors/doors'
import { pouring } from '../../doors/files'
import { notFound } from '../../records/entry/refusal'
import { writeList } from '../../records/out/list'
import { LIST_TYPES } from '../../records/out/text'

export default pouring('/api/lists/{list}', event => {
  const list = pathText(event, 'list')
  if (!Object.hasOwn(LIST_WORDS, list)) notFound('This list')
  const name = list as ListName
  const { as: type, ...by } = queryOf(event, FILES['/api/lists/{list}'].query)
  const of = LIST_FILTERS.flatMap(f => by[f]?.replaceAll(/[^\w.-]+/g, ' ').trim() ?? [])
  return {
    type: LIST_TYPES[type],
    name: `${[name, ...of].join(' ')}.${type}`,
    write: async out => writeList(await database(), { name, type, by }, out),
  }
})
