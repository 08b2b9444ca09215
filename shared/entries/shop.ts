/** The shop itself: people, settings, rules and prices. */
import { z } from 'zod'
import { isLoopback } from '../labels'
import { isKind, RULE_RANGES } from '#core/limits'
import { HIGHEST_FLOW_MM3S, HIGHEST_FLOW_RANGE } from '#core/runs'
import { RH_PERCENT } from '#core/drying'
import { isZone } from '../time'
import { name, outOfUse, between, share, text, when } from './fields'

/** The shop's own address, as labels carry it; empty: labels carry tags alone. */
export const labelAddress = z
  .string()
  .trim()
  .max(120, 'At most 120 characters')
  .superRefine((text, ctx) => {
    if (text === '') return
    const say = (message: string) => ctx.addIssue({ code: 'custom', message })
    const url = URL.canParse(text) ? new URL(text) : null
    if (url === null || !/^https?:$/.test(url.protocol)) say('An address like http://shop.example:3000')
    else if (isLoopback(url.hostname))
      say('This is every machine’s own address: a phone would look for the shop in itself')
    else if (url.pathname.replace(/\/$/, '') !== '' || url.search !== '' || url.hash !== '' || url.username !== '')
      say('The address alone, without what stands behind it')
  })
  .transform(text => text.replace(/\/+$/, ''))

export const personSchema = z.object({ name: name(80), role: z.enum(['technician', 'lead']), outOfUse })
export const settingsFields = z.object({
  shopName: name(80),
  timeZone: name(60).refine(isZone, { error: 'Choose a time zone, like Europe/London' }),
  acceptedRisk: share(0.001, 0.5, '%'),
  /** What is not named stays. */
  labelAddress: labelAddress.optional(),
})

const price = z.object({ price: between(0, 1e6, ''), minutes: between(0, 1e4, 'min') })
const rule = (key: keyof typeof RULE_RANGES, unit: string) => between(...RULE_RANGES[key], unit)
/** Guard bands, room, rates and prices that the limits and the cost of nozzles are worked out with. */
export const rulesFields = z.object({
  guardHotendC: rule('guardHotendC', '°C'),
  guardBedC: rule('guardBedC', '°C'),
  guardChamberC: rule('guardChamberC', '°C'),
  guardHotendCheckedC: rule('guardHotendCheckedC', '°C'),
  guardBedCheckedC: rule('guardBedCheckedC', '°C'),
  guardChamberCheckedC: rule('guardChamberCheckedC', '°C'),
  roomC: rule('roomC', '°C'),
  bendSafety: rule('bendSafety', ''),
  coarseC: rule('coarseC', '°C per count'),
  labourPerHour: rule('labourPerHour', 'an hour'),
  downtimePerHour: between(0, 10_000, 'an hour'),
  downtimeHours: between(0, 100, 'h'),
  scrapPerSwap: between(0, 10_000, ''),
  highestFlowMm3S: between(...HIGHEST_FLOW_RANGE, 'mm³/s').default(HIGHEST_FLOW_MM3S),
  currency: text(8).default(''),
  roomRh: between(...RH_PERCENT, '%').default(50),
  dryBoxRh: between(...RH_PERCENT, '%').default(10),
  /** When its hygrometer was read; null while the humidity is a start value. */
  dryBoxReadAt: when.nullable().default(null),
})
export const pricesFields = z.object({
  prices: z
    .record(z.string().max(60), price)
    .refine(p => Object.keys(p).every(k => isKind(k) || k.startsWith('nozzle ')), {
      error: 'Prices are kept by part kind, or "nozzle" and its material',
    }),
})
