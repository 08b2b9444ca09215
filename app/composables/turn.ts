/**
 * Whose turn it is in a list that is worked off line by line: the first line that neither stands, nor waits here to be
 * sent, nor was taken by the server a moment ago, before the list was read anew.
 */
import { computed, watch, type Ref } from 'vue'
import { nextOpen, type TurnKind } from '~/lib/turn'
import { useOutbox } from '~/state/outbox'

/** `open` says of each line whether it is open; null where the list is not worked off any more. */
export function useTurn<T extends { id: number }>(
  kind: TurnKind,
  list: Readonly<Ref<T | null>>,
  open: (of: T) => readonly boolean[] | null,
) {
  const outbox = useOutbox()
  // once it stands in the list, the list alone counts: it may be struck out there
  watch(list, of => {
    const lines = of && open(of)
    if (!lines) return
    const stands = ({ route, body }: (typeof outbox.taken)[number]) =>
      route === kind.route && body[kind.of] === of.id && lines[body.line as number] === false
    if (outbox.taken.some(stands)) outbox.taken = outbox.taken.filter(x => !stands(x))
  })
  return computed(() => {
    const of = list.value
    const lines = of && open(of)
    return of && lines ? nextOpen(kind, of.id, lines, [...outbox.entries, ...outbox.taken]) : null
  })
}
