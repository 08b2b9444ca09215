/** Steps that a swap of a nozzle and of a hotend have in common. Source: common practice, no source. */
import { APPROACH_MM, Z_MM, type torqueFor, type ZWay } from '../changeover'
import { InputError, need, needIfKnown } from '../numeric'
import { celsius, mmNumber } from '../words'
import { field, hazards, step } from './make'
import type { Step } from './types'

/** What is known of the head on which either is done. */
export interface HeadFacts {
  /** Printer, with its head where there are several. */
  place: string
  /** Which head, from 0, as the printer counts them. */
  head: number
  /** Hottest coming job within all ceilings, as set; null when none is hotter than the nozzle is turned at. */
  resnug: { setC: number; job: string } | null
  torque: ReturnType<typeof torqueFor>
  sock: boolean
  liner: boolean
  /** Filaments that may be loaded, and what to purge at from what stands in the hotend; null where nobody can tell. */
  materials: readonly { id: number; name: string; purgeC: number | null }[]
  /** What stands in the hotend above the nozzle; null when nothing is logged. */
  holds: string | null
  zWay: ZWay | null
  /** The Z number that was recorded last; null before any. */
  zMm: number | null
}

/** Numbers that are none never become a step. */
export function checkHead(f: HeadFacts): void {
  if (f.resnug) need('resnug.setC', f.resnug.setC, 0, 600, '°C')
  need('torque.newtonMetre', f.torque.newtonMetre, 0, 100, 'N·m')
  need('head', f.head, 0, 63)
  needIfKnown('zMm', f.zMm, ...Z_MM, 'mm')
  checkPurging(f)
}
export function checkPurging({ materials }: Pick<HeadFacts, 'materials'>): void {
  if (materials.length === 0) throw new InputError('materials', 0, 'at least one filament to purge with')
  for (const m of materials) needIfKnown('materials.purgeC', m.purgeC, 0, 600, '°C')
}

export const torqueWords = ({ newtonMetre, by }: HeadFacts['torque']) => {
  const most = `at most ${(Math.floor(newtonMetre * 10 + 1e-9) / 10).toFixed(1)} N·m`
  return by === 'maker'
    ? `${most}: the maker's value.`
    : `${most}, hot: there the ${by} gives, by start values of its metal. The maker's value comes first where it is ` +
        'lower.'
}

export const raise = (): Step =>
  step('raise', 'Raise Z', {
    says: ['50 mm or more between nozzle and bed, before anything else: the spanner must fit, and a longer nozzle.'],
  })

export const prop = (): Step =>
  step('prop', 'Block up an axis that falls', {
    says: ['When motors are off, does the bed or the gantry sink on this printer? Then put a block under it now.'],
    hazards: hazards('falling axis'),
  })

/** Snug once more where the hottest coming job is hotter than the nozzle was tightened at. */
export const resnug = (f: HeadFacts): Step[] =>
  f.resnug === null
    ? []
    : [
        step('resnug', `Set ${celsius(f.resnug.setC)} and snug it once more`, {
          says: [
            `${f.resnug.job} runs that hot; a joint that is tight cooler leaks there. No more than ` +
              `${torqueWords(f.torque)}`,
          ],
          hazards: hazards('turning'),
          wait: { heater: 'nozzle', head: f.head, setC: f.resnug.setC },
        }),
      ]

export const leaks = (): Step =>
  step('leaks', 'Look for leaks', {
    says: ['Five minutes hot, then a light from the side: nothing between flange and block, nothing on top of it.'],
  })

/** What runs from the nozzle at the end; `more`: what to choose where that is not plain. */
export const purgedTo = ({ materials }: Pick<HeadFacts, 'materials'>, more = '') =>
  field.choice(
    'material',
    'What runs from it now',
    materials.map(m => ({
      value: String(m.id),
      text: m.purgeC === null ? m.name : `${m.name}, purged at ${celsius(m.purgeC)}`,
    })),
    { required: true, help: `It stands in the nozzle until the next purge.${more}` },
  )

/** Z, level, probe, purge, first layer: what follows whatever was changed at the hot end. */
export function backToWork(f: HeadFacts): Step[] {
  return [
    step('z', 'Set Z by feeler', {
      says: [`The first approach stops ${APPROACH_MM} mm too high; from there down by the feeler gauge, slowly.`],
      fields: [
        ...(f.zWay === null
          ? [
              field.choice(
                'zWay',
                "This printer's Z number: which is further from the bed?",
                [
                  { value: 'larger is higher', text: 'The larger number' },
                  { value: 'larger is lower', text: 'The smaller number' },
                ],
                {
                  required: true,
                  help: 'Asked once for each printer. Try it: make the number 0.1 larger and look which way it went.',
                },
              ),
            ]
          : []),
        field.number('zBeforeMm', 'Z number until now', Z_MM, 'mm', {
          help: f.zMm === null ? 'As the printer shows it.' : `Recorded last: ${mmNumber(f.zMm, 3)} mm.`,
        }),
        field.number('zAfterMm', 'Z number now', Z_MM, 'mm', { required: true, help: 'As the feeler found it.' }),
      ],
    }),
    step('level', 'Level it hot', {
      says: ['Bed at its temperature, soaked. Three points by feeler, then round again: each moves the others.'],
    }),
    step('probe', 'Calibrate the probe, if it has one', {
      says: ['Its distance to the tip has changed with the nozzle. A printer without a probe: go on.'],
    }),
    step('purge', 'Load, and purge until it runs clean', {
      says: [
        f.holds === null
          ? 'What stands in the hotend is not logged: purge until nothing else comes.'
          : `${f.holds} still stands in the hotend above the nozzle.`,
      ],
      hazards: hazards('fumes'),
      fields: [purgedTo(f)],
    }),
    step('first layer', 'Watch a first layer', {
      says: ['0.3 mm high, 15 mm/s: it lies flat, no ridges, no gaps, the same at every corner.'],
    }),
  ]
}
