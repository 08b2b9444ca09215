/**
 * Whose turn it is in a list that is worked off line by line: the first line that neither stands, nor waits here to be
 * sent, nor was saved a moment ago, before the list was read anew.
 */
import { computed, ref, watch, type Ref } from 'vue'
import { nextOpen, type TurnKind } from '~/lib/turn'
import { useOutbox } from '~/state/outbox'

/** `open` says of each line whether it is open; null where the list is not worked off any more. */
export function useTurn<T extends { id: number }>(
  kind: TurnKind,
  list: Readonly<Ref<T | null>>,
  open: (of: T) => readonly boolean[] | null,
) {
  const outbox = useOutbox()
  /** Lines that were saved from here and do not stand in the list yet. */
  const saved = ref<{ id: number; line: number }[]>([])
  watch(list, of => {
    const lines = of && open(of)
    saved.value = saved.value.filter(x => x.id === of?.id && lines?.[x.line] === true)
  })
  const line = computed(() => {
    const of = list.value
    const lines = of && open(of)
    if (!of || !lines) return null
    const mine = saved.value.map(x => ({ route: kind.route, body: { [kind.of]: x.id, line: x.line } }))
    return nextOpen(kind, of.id, lines, [...outbox.entries, ...mine])
  })
  return { line, done: (id: number, at: number) => void saved.value.push({ id, line: at }) }
}
