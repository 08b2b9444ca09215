/** Several alike at once: each as if it were entered by itself, with the next tag. All of them are stored, or none. */
import { tagsFrom } from '#core/intake'
import type { Connection } from '../../db/client'
import { refuseField } from './refusal'

export async function addAlike<T extends { tag: string }, A>(
  tx: Connection,
  { howMany, ...entry }: T & { howMany: number },
  add: (tx: Connection, entry: Omit<T, 'howMany'> & { tag: string }) => Promise<A>,
): Promise<A> {
  const tags = tagsFrom(entry.tag, howMany)
  if (tags === null) return refuseField('tag', 'Several need a tag that ends in a number')
  const added: A[] = []
  for (const tag of tags) added.push(await add(tx, { ...(entry as Omit<T, 'howMany'>), tag }))
  return added[0]!
}
