/** What can have a label: the shop's things by kind, each with its tag and what stands under it. */
import type { PinLine } from '#shared/answers/pins'
import { mmNumber } from '#core/words'
import type { ShopData } from '~/state/shop'
import { whereIs } from '~/words/nozzle'

export const LABEL_KINDS = ['Nozzles', 'Spools', 'Hotends', 'Printers', 'Pins'] as const
export type LabelKind = (typeof LABEL_KINDS)[number]
export interface Labelled {
  tag: string
  lines: string[]
  /** Where it is, to choose by. */
  where: string
}

export function labelledOf(kind: LabelKind, shop: ShopData, pins: readonly PinLine[]): Labelled[] {
  switch (kind) {
    case 'Nozzles':
      return [...shop.nozzles]
        .sort((a, b) => Number(a.retired) - Number(b.retired))
        .map(n => ({ tag: n.tag, lines: [n.typeName], where: whereIs(n) }))
    case 'Spools':
      return [...shop.spools]
        .sort((a, b) => Number(b.inUse) - Number(a.inUse))
        .map(s => ({
          tag: s.tag,
          lines: [s.material, `${s.diameterMm} mm`],
          where: s.inUse ? 'in use' : 'used up',
        }))
    case 'Hotends':
      return shop.hotends.map(h => ({ tag: h.tag, lines: ['hotend'], where: '' }))
    case 'Printers':
      return shop.printers.map(p => ({ tag: p.name, lines: [p.kind].filter(Boolean), where: '' }))
    case 'Pins':
      return pins.map(p => ({
        tag: p.mark,
        lines: ['pin gauge', `${mmNumber(p.nominalMm)} mm`],
        where: p.withdrawn ? 'out of use' : '',
      }))
  }
}

/** Where the label of each kind goes, and where it must not. */
export const LABEL_CAUTION: Record<LabelKind, string> = {
  Nozzles: 'For its bag or its place in the rack: never stick a label on a nozzle, it smoulders when it is heated.',
  Hotends: 'On a tag at the end of its cable: never stick a label on a hotend, it smoulders when it is heated.',
  Printers: 'On the frame, away from bed, hotend and the air of a heated chamber.',
  Spools: 'Off before the spool goes into a dryer above 60 °C, or on a tag: glue creeps, and paper yellows.',
  Pins: 'On its case, never on the pin.',
}
