/** What can go into a hotend: parts that lie on the shelf, kinds of the catalogue, nozzles. */
import { HOTEND_ROLES, isHotendRole, kindsOf } from '#core/limits'
import { capital, mmNumber } from '#core/words'
import type { Equip } from '#shared/answers/bench'

export interface Option {
  value: string
  text: string
  group?: string
}

/** Of one role, or of all: what lies on the shelf first. */
export function partOptions(equip: Equip | null, role?: (typeof HOTEND_ROLES)[number]): Option[] {
  const of = (r: string) => (role === undefined ? isHotendRole(r as never) : r === role)
  return [
    ...(equip?.shelf ?? [])
      .filter(p => of(p.role))
      .map(p => ({ value: `shelf ${p.id}`, text: `${p.name}${p.note ? `, ${p.note}` : ''}`, group: 'on the shelf' })),
    ...HOTEND_ROLES.filter(of).flatMap(r =>
      kindsOf(r).map(k => ({ value: k.key, text: capital(k.key), group: role === undefined ? r : 'not recorded yet' })),
    ),
  ]
}
export const nozzleOptions = (equip: Equip | null): { value: number; text: string }[] =>
  (equip?.nozzles ?? []).map(n => ({
    value: Number(n.id),
    text: `${n.tag}, ${n.material} ${mmNumber(n.boreMm)} mm`,
  }))

/** Choices as an entry takes them: records of the shelf, and kinds of which nobody recorded one. */
export const intoEntry = (chosen: readonly string[]) => {
  const shelf = chosen.filter(c => c.startsWith('shelf ')).map(c => Number(c.slice(6)))
  const kinds = chosen.filter(c => c !== '' && !c.startsWith('shelf '))
  return { into: shelf, add: kinds.map(kind => ({ kind })) }
}
