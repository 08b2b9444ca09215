/** Names and tags of everything, for forms and the strip. */
import type { Shop } from '#shared/answers/shop'
import type { Connection } from '../../db/client'
import { listMaterials } from '../materials/materials'
import { nozzlesOfShop } from '../nozzles/nozzles'
import { spoolsOfShop } from '../spools/spools'
import { listNozzleTypes } from '../nozzles/types'
import { listPeople } from './people'
import { shopSettings } from './settings'
import { hotendTags } from '../printers/hotends'
import { listPrinters } from '../printers/printers'
import { studyTurn } from '../studies/studies'

/** Everything the strip and the forms need to know names and tags. */
export async function shop(db: Connection): Promise<Omit<Shop, 'person' | 'onNetwork'>> {
  const [printers, nozzles, hotends, spools, materials, types, people, settings, turn] = await Promise.all([
    listPrinters(db),
    nozzlesOfShop(db),
    hotendTags(db),
    spoolsOfShop(db),
    listMaterials(db),
    listNozzleTypes(db),
    listPeople(db),
    shopSettings(db),
    studyTurn(db),
  ])
  const used = <T extends { outOfUse: boolean }>(all: readonly T[], outOfUse: boolean) =>
    all.filter(x => x.outOfUse === outOfUse)
  return {
    printers: used(printers, false),
    nozzles,
    hotends,
    spools,
    materials,
    types,
    people: used(people, false),
    settings,
    studyTurn: turn,
    outOfUse: { printers: used(printers, true), people: used(people, true) },
  }
}
