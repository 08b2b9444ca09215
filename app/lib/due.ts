/** The list of what is due, in groups: by how pressing it is, by printer, by person, by day. */
import type { DueItem } from '#shared/answers/due'

export const DUE_BY = ['weight', 'printer', 'person', 'day'] as const
export type DueBy = (typeof DUE_BY)[number]
export interface DueGroup {
  name: string
  items: DueItem[]
}

const SHOP = 'The shop'
const MARKS = { stop: 'Not before it is done', look: 'When a person comes by', fine: 'To know' } as const

/** Items in their groups, each in the order they came: the most pressing first. `dayOf` names the day of what comes. */
export function dueGroups(items: readonly DueItem[], by: DueBy, dayOf: (at: string) => string): DueGroup[] {
  const names = {
    weight: (i: DueItem) => (i.on === null ? MARKS[i.mark] : 'Comes within two weeks'),
    printer: (i: DueItem) => i.printer ?? SHOP,
    person: (i: DueItem) => i.person ?? 'Anybody',
    day: (i: DueItem) => (i.on === null ? 'Now' : dayOf(i.on)),
  }[by]
  const groups = new Map<string, DueItem[]>()
  for (const i of items) groups.set(names(i), [...(groups.get(names(i)) ?? []), i])
  const all = [...groups].map(([name, of]) => ({ name, items: of }))
  // anybody comes last: what somebody has in hand is done first
  return by === 'person' ? all.sort((a, b) => Number(a.name === 'Anybody') - Number(b.name === 'Anybody')) : all
}
