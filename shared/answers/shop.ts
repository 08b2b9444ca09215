/** Names and tags of everything, for forms and the strip, and who acts. */
import { z } from 'zod'
import { prices } from './bench'
import { material } from './materials'
import { nozzleLine, nozzleType } from './nozzles'
import { id, maybe, number, text, time } from './parts'
import { printerLine } from './printers'
import { spoolRow } from './spools'
import { studyTurn } from './studies'

export const person = z.object({
  id,
  name: text,
  role: z.enum(['technician', 'lead']),
  outOfUse: z.boolean(),
  version: id,
})
export type Person = z.output<typeof person>

export const settings = z.object({
  id,
  shopName: text,
  timeZone: text,
  labelAddress: text,
  acceptedRisk: number,
  guardHotendC: number,
  highestFlowMm3S: number,
  guardBedC: number,
  guardChamberC: number,
  guardHotendCheckedC: number,
  guardBedCheckedC: number,
  guardChamberCheckedC: number,
  roomC: number,
  bendSafety: number,
  coarseC: number,
  labourPerHour: number,
  downtimePerHour: number,
  downtimeHours: number,
  scrapPerSwap: number,
  currency: text,
  roomRh: number,
  dryBoxRh: number,
  dryBoxReadAt: maybe(time),
  prices,
  demoAnchor: time.nullable(),
  version: id,
})
export type Settings = z.output<typeof settings>

/** Every tag there ever was: also of what was retired or used up long ago, of which the shop says no more. */
export const knownTags = z.object({ nozzles: z.array(text), spools: z.array(text), pins: z.array(text) })
export type KnownTags = z.output<typeof knownTags>

export const shop = z.object({
  printers: z.array(printerLine),
  /** Those in service, and those retired last. */
  nozzles: z.array(nozzleLine),
  hotends: z.array(z.object({ id, tag: text, headId: maybe(id) })),
  /** Those in use, and those used up last. */
  spools: z.array(spoolRow),
  materials: z.array(material),
  types: z.array(nozzleType),
  people: z.array(person),
  settings,
  /** The line of a gauge study whose turn it is. */
  studyTurn: maybe(studyTurn),
  /** Other machines reach it, and there are no accounts: everybody on the network may write. */
  onNetwork: z.boolean(),
  /** Who acts. */
  person,
  /** What is here no longer: offered nowhere, and listed where it can be brought back. */
  outOfUse: z.object({ printers: z.array(printerLine), people: z.array(person) }),
})
export type Shop = z.output<typeof shop>
