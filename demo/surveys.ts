/**
 * The demo's surveys: the enclosure whose printed idler sagged, shut and with its vent open; a heated chamber; and one
 * that does not hold any more, as its fans were changed since. A plan to line the first, and tests of cut-outs. Shares
 * of the air are known only here.
 */
import type { Guard } from '#core/chamber'
import { surveySchema } from '#shared/entries/chambers'
import { cutOutTestSchema, planSchema } from '#shared/entries/plans'
import { changeSchema } from '#shared/entries/printers'
import type { Connection } from '../server/db/client'
import { saveCutOutTest, savePlan } from '../server/records/chambers/plans'
import { saveSurvey } from '../server/records/chambers/surveys'
import { saveChange } from '../server/records/printers/stack-change'
import { listStacks } from '../server/records/printers/stack-read'

const ROOM_C = 23
const SIZE = { widthMm: 350, depthMm: 350, heightMm: 450 }
const panel = { material: 'aluminium composite panel', mm: 4 } as const
const felt = { material: 'felt', mm: 16 } as const
const lining = { material: 'mineral wool', mm: 20 } as const
/** Ribble's box as it stands, and lined with mineral wool between it and a sheet of aluminium. */
const RIBBLE_PLAN = {
  name: 'Lined with mineral wool',
  size: SIZE,
  walls: [
    ['front', 'side', 0.16],
    ['back', 'side', 0.16],
    ['left', 'side', 0.16],
    ['right', 'side', 0.16],
    ['top', 'top', 0.12],
    ['floor', 'bottom', 0.12],
  ].map(([name, face, areaM2]) => ({
    name,
    face,
    areaM2,
    layers:
      name === 'front'
        ? [
            { material: 'acrylic', mm: 4 },
            { material: 'air gap', mm: 16 },
            { material: 'acrylic', mm: 4 },
          ]
        : [felt, panel],
    added: name === 'front' ? [] : [lining, { ...panel, mm: 3 }],
  })),
  roomC: 23,
  bed: { setC: 100, areaM2: 0.1225, powerW: 600, under: 'bare' },
  nozzleW: 15,
  stirred: false,
  insideKg: 9,
  gapMm2: 600,
  gapThenMm2: 600,
  ventLMin: 0,
  heaterW: 0,
  heaterNow: false,
  note: 'the door stays bare, to see in',
} as const

interface Shop {
  printers: Map<string, number>
  /** A time so many days before the anchor. */
  daysAgo: (days: number, hour: number) => string
  technician: number
  random: () => number
}
type Spot = [name: string, place: 'low' | 'high', x: number, y: number, z: number, finalC: number]

export async function addSurveys(tx: Connection, shop: Shop): Promise<void> {
  const { daysAgo } = shop
  const timesS = Array.from({ length: 9 }, (_, i) => i * 300)
  const about = (c: number) => timesS.map(() => Number((c + (shop.random() - 0.5) * 0.2).toFixed(1)))
  const survey = async (
    printer: string,
    when: string,
    set: { bedC: number; chamberSetC?: number },
    state: { opening: 'shut' | 'vent open'; fan?: boolean },
    spots: readonly Spot[],
    note: string,
  ) =>
    saveSurvey(
      tx,
      surveySchema.parse({
        printerId: shop.printers.get(printer),
        ...set,
        state,
        size: SIZE,
        timesS,
        roomC: about(ROOM_C),
        probes: spots.map(([name, place, xMm, yMm, zMm, c]) => ({ name, place, xMm, yMm, zMm, readC: about(c) })),
        shielded: true,
        probeUC: 0.6,
        note,
        occurredAt: when,
      }),
      shop.technician,
    )
  const spots = (low: number, side: number, high: number, idler: number): Spot[] => [
    ['P1 bed', 'low', 175, 60, 40, low],
    ['P2 side', 'low', 40, 175, 120, side],
    ['P3 top', 'high', 175, 300, 420, high],
    ['P4 idler', 'high', 310, 290, 380, idler],
  ]
  await survey(
    'Wharfe',
    daysAgo(310, 13),
    { bedC: 90 },
    { opening: 'shut' },
    spots(62.5, 61.3, 53.6, 54.4),
    'first map of this box',
  )
  const fans = (await listStacks(tx)).find(p => p.name === 'Wharfe')!.parts.find(p => p.role === 'fans')!
  await saveChange(
    tx,
    changeSchema.parse({
      printerId: shop.printers.get('Wharfe'),
      text: 'New fans: the old ones had seized',
      occurredAt: daysAgo(140, 9),
      remove: [fans.id],
      add: [
        {
          kind: fans.kind,
          name: fans.name,
          place: fans.place,
          limitC: fans.limitC,
          headId: null,
          basis: 'data sheet',
          note: 'ball bearings',
        },
      ],
    }),
    shop.technician,
  )
  await survey(
    'Ribble',
    daysAgo(52, 14),
    { bedC: 100 },
    { opening: 'shut' },
    spots(70.3, 69.7, 65.1, 66),
    'after the printed idler had sagged; P4 hangs beside it',
  )
  await survey(
    'Ribble',
    daysAgo(52, 17),
    { bedC: 100 },
    { opening: 'vent open' },
    spots(64.2, 63, 55.1, 56.3),
    'the same with the vent of the lid open',
  )
  await survey(
    'Calder',
    daysAgo(44, 11),
    { bedC: 150, chamberSetC: 85 },
    { opening: 'shut', fan: true },
    spots(91.2, 90.5, 85.1, 85.6),
    '',
  )
  await savePlan(
    tx,
    planSchema.parse({ ...RIBBLE_PLAN, printerId: shop.printers.get('Ribble'), occurredAt: daysAgo(20, 16) }),
    shop.technician,
  )
  const test = (printer: string, guard: Guard, days: number, tripped: boolean, atC: number | null, note = '') =>
    saveCutOutTest(
      tx,
      cutOutTestSchema.parse({
        printerId: shop.printers.get(printer),
        guard,
        tripped,
        atC,
        note,
        occurredAt: daysAgo(days, 8),
      }),
      shop.technician,
    )
  await test('Calder', 'hotend runaway protection', 64, true, 250, 'sensor unplugged at temperature')
  await test('Calder', 'chamber heater cut-out', 64, true, 112, 'probe beside the cut-out')
  await test('Ribble', 'hotend runaway protection', 380, true, 240)
  await test('Ribble', 'bed thermal cut-out', 33, false, null, 'stayed shut: to be changed')
}
