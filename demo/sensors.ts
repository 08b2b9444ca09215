/**
 * The demo's references and sensor checks: one sensor that has come to read 6 °C low, some that are fine, one touched
 * at the tip only, and most that nobody has checked. Readings are what such references would read at temperatures that
 * only the demo knows.
 */
import { platinumOhm, thermocoupleMillivolt, type Placement, type Reference, type Sensed } from '#core/thermometry'
import { referenceFields, sensorCheckSchema } from '#shared/entries/sensors'
import type { Connection } from '../server/db/client'
import { saveSensorCheck } from '../server/records/sensors/checks'
import { addReference } from '../server/records/sensors/references'

type Names = 'couple' | 'platinum' | 'air'
const REFERENCES: Record<Names, { name: string; is: Partial<Reference>; note: string; due: boolean }> = {
  couple: {
    name: 'K couple, thin',
    is: { kind: 'thermocouple', readsIn: 'mV', type: 'K', certificateUC: 0.2, meter: 0.01 },
    note: 'sheath of 1 mm, fits the hole beside the heater',
    due: false,
  },
  platinum: {
    name: 'Pt100 on tape',
    is: { kind: 'platinum', readsIn: 'Ω', r0Ohm: 100, build: 'film', platinumClass: 'A', wires: 4, meter: 0.05 },
    note: 'for beds',
    due: false,
  },
  air: {
    name: 'Air probe',
    is: { kind: 'probe', readsIn: '°C', certificateUC: 0.25, meter: 0.1 },
    note: 'with its shield of foil',
    due: true,
  },
}
const COLD_C = 24.5

interface Shop {
  printers: Map<string, number>
  /** By `printer/head`. */
  heads: Map<string, number>
  /** A time so many days before the anchor. */
  daysAgo: (days: number, hour: number) => string
  /** The day until which a certificate holds. */
  dueOn: string
  technician: number
}

export async function addSensorChecks(tx: Connection, shop: Shop): Promise<void> {
  const ids = {} as Record<Names, number>
  for (const [key, r] of Object.entries(REFERENCES) as [Names, (typeof REFERENCES)[Names]][]) {
    const entry = { name: r.name, is: r.is, note: r.note, dueOn: r.due ? shop.dueOn : null }
    ids[key] = (await addReference(tx, referenceFields.parse(entry), shop.technician)).id
  }
  const reads = (by: Names, tC: number) => {
    if (by === 'couple')
      return {
        reading: Number((thermocoupleMillivolt('K', tC) - thermocoupleMillivolt('K', COLD_C)).toFixed(3)),
        coldC: COLD_C,
      }
    return { reading: Number(by === 'platinum' ? platinumOhm(tC).toFixed(2) : tC.toFixed(1)) }
  }
  const check = async (
    printer: string,
    head: string | null,
    zone: Sensed,
    by: Names,
    placement: Placement,
    when: string,
    points: [shownC: number, trueC: number, swingC: number][],
    note = '',
  ) =>
    saveSensorCheck(
      tx,
      sensorCheckSchema.parse({
        printerId: shop.printers.get(printer),
        zone,
        headId: head === null ? null : shop.heads.get(`${printer}/${head}`),
        referenceId: ids[by],
        placement,
        points: points.map(([shownC, trueC, swingC]) => ({ shownC, swingC, ...reads(by, trueC) })),
        allowed: { by: 'guard band', plusMinusC: zone === 'hotend' ? 5 : 2 },
        note,
        occurredAt: when,
      }),
      shop.technician,
    )
  const { daysAgo } = shop
  await check('Wharfe', 'head', 'hotend', 'couple', 'in the block', daysAgo(190, 9), [
    [200, 201.6, 0.5],
    [245, 246.9, 0.5],
    [285, 287.1, 1],
  ])
  await check('Calder', 'head', 'hotend', 'couple', 'in the block', daysAgo(64, 10), [
    [250, 249.2, 0.5],
    [350, 348.7, 0.5],
    [430, 428.4, 1],
  ])
  await check('Calder', null, 'chamber', 'air', 'beside the sensor', daysAgo(63, 15), [
    [60, 60.6, 0.5],
    [85, 85.4, 0.5],
  ])
  await check(
    'Swale',
    'high flow',
    'hotend',
    'couple',
    'at the tip',
    daysAgo(40, 11),
    [[300, 289.4, 1]],
    'no hole in it',
  )
  await check(
    'Wharfe',
    'head',
    'hotend',
    'couple',
    'in the block',
    daysAgo(9, 14),
    [
      [200, 204.7, 0.3],
      [245, 250.9, 0.3],
      [285, 291.2, 0.3],
    ],
    'bead loose in its hole',
  )
}
