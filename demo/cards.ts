/** What the demo's people wrote of what worked; the runs tell the rest. Invented. */
import { cardSchema } from '#shared/entries/cards'
import type { Connection } from '../server/db/client'
import { addCard } from '../server/records/cards/cards'

const WRITTEN = [
  {
    material: 'PA6-CF20',
    type: 'hardened steel 0.4',
    printer: 'Ribble',
    card: {
      printMmS: 55,
      flowPercent: 98,
      holdMin: 30,
      coolCPerMin: 1,
      adhesive: 'PEI + glue stick',
      bondAlongN: 610,
      bondAcrossN: 265,
      outcome: 'Flat with a brim, matt',
      note: 'lid shut; bars of 10 × 4 mm',
    },
  },
  {
    material: 'PA12-CF15',
    type: 'hardened steel 0.6',
    printer: 'Wharfe',
    card: { printMmS: 45, fanPercent: 0, adhesive: 'epoxy-glass laminate', outcome: 'Thin lines above 60 mm/s' },
  },
]

export async function addCards(
  tx: Connection,
  shop: {
    materials: ReadonlyMap<string, number>
    types: ReadonlyMap<string, number>
    printers: ReadonlyMap<string, number>
    person: number
  },
): Promise<void> {
  for (const { material, type, printer, card } of WRITTEN) {
    const of = {
      materialId: shop.materials.get(material),
      typeId: shop.types.get(type),
      printerId: shop.printers.get(printer),
      card,
    }
    await addCard(tx, cardSchema.parse(of), shop.person)
  }
}
