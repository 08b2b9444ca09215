/**
 * Swapping a nozzle, worked out for one head: what is done in which order, how hot, how tight, and where the head must
 * stop afterwards. °C as set at the printer, mm, N·m. Source: common practice, no source, but for the torque
 * (`changeover`).
 */
import { APPROACH_MM, Z_MM, Z_WAYS, zNumbers, zWords, type ZWay } from '../changeover'
import { need, needIfKnown } from '../numeric'
import { celsius, mmNumber } from '../words'
import { field, hazards, step } from './make'
import { backToWork, checkHead, leaks, prop, raise, resnug, torqueWords, type HeadFacts } from './shared'
import type { Step, Values, Wait } from './types'

/** Length of any nozzle, mm. */
export const LENGTH_MM = [5, 40] as const

export interface SwapNozzle {
  id: number
  tag: string
  /** "hardened steel 0.4". */
  words: string
  lengthMm: number
  /** Measured on this nozzle, or what its type says. */
  lengthBy: 'gauge' | 'type'
  insert: boolean
  plated: boolean
  /** Solid and brittle: carbide, diamond. */
  brittle: boolean
}

export interface SwapFacts extends HeadFacts {
  old: SwapNozzle | null
  fresh: SwapNozzle
  turn: { setC: number; material: string | null }
}

/** Longer or shorter, as far as it is known, mm: what was measured at the bench counts before what is on record. */
export function lengthChange(f: SwapFacts, values: Values): { mm: number; measured: boolean } | null {
  if (f.old === null) return null
  const measured = typeof values.lengthMm === 'number' ? values.lengthMm : null
  const freshMm = measured ?? f.fresh.lengthMm
  need('lengthMm', freshMm, ...LENGTH_MM, 'mm')
  need('old.lengthMm', f.old.lengthMm, ...LENGTH_MM, 'mm')
  return {
    mm: freshMm - f.old.lengthMm,
    measured: f.old.lengthBy === 'gauge' && (measured !== null || f.fresh.lengthBy === 'gauge'),
  }
}

/** A measured length further from the one on record than this is asked about, mm. */
export const LENGTH_FAR_MM = 0.3

/** What to ask about a length measured at the bench, mm; null where it is near what is on record. */
export function lengthDoubt(f: SwapFacts, values: Values): string | null {
  const { lengthMm } = values
  if (typeof lengthMm !== 'number') return null
  need('lengthMm', lengthMm, ...LENGTH_MM, 'mm')
  const { tag, lengthMm: known, lengthBy } = f.fresh
  if (Math.abs(lengthMm - known) <= LENGTH_FAR_MM) return null
  const by = lengthBy === 'gauge' ? 'by its last gauge' : 'by its type'
  return `${tag} is ${mmNumber(known, 2)} mm long ${by}; ${mmNumber(lengthMm, 2)} mm is far from it. Is it this nozzle?`
}

/** A Z number further from the expected one than this is asked about, mm. */
export const Z_FAR_MM = 0.3

export interface SwapZ {
  says: string[]
  /** The printer's number that is expected, and the one to come down from; null while something is missing. */
  expectedMm: number | null
  startMm: number | null
  /** `after` is further off than lengths can be: ask. */
  far: string | null
}

/**
 * What the new length means for Z, by what was entered at the steps so far: `lengthMm`, `zBeforeMm`, `zAfterMm`,
 * `zWay`. Throws InputError for a length outside its range.
 *
 * @example
 * swapZ({ old: null, fresh: { lengthMm: 12.5 }, zWay: null, zMm: null }, {}).expectedMm // null
 */
export function swapZ(f: SwapFacts, values: Values): SwapZ {
  const change = lengthChange(f, values)
  const says = [
    change === null
      ? 'How far the one before it reached is not known: come down from well above.'
      : zWords(change.mm) + (change.measured ? '' : ' That is by their types, not measured: trust the feeler.'),
  ]
  const way = (Z_WAYS as readonly unknown[]).includes(values.zWay) ? (values.zWay as ZWay) : f.zWay
  const before = typeof values.zBeforeMm === 'number' ? values.zBeforeMm : null
  const after = typeof values.zAfterMm === 'number' ? values.zAfterMm : null
  needIfKnown('zAfterMm', after, ...Z_MM, 'mm')
  if (change === null || way === null || before === null) return { says, expectedMm: null, startMm: null, far: null }
  const { expectedMm, startMm } = zNumbers(before, change.mm, way)
  says.push(
    `Set Z to ${mmNumber(startMm, 3)} first: ${APPROACH_MM} mm too high. Come down by the feeler; it should end near ` +
      `${mmNumber(expectedMm, 3)}.`,
  )
  const off = after === null ? 0 : Math.abs(after - expectedMm)
  const far =
    off > Z_FAR_MM
      ? `By the lengths it should end near ${mmNumber(expectedMm, 3)}; ${mmNumber(after!, 3)} is ` +
        `${off.toFixed(2)} mm off. Did the new one seat, and does the number count that way?`
      : null
  return { says, expectedMm, startMm, far }
}

/** Numbers that are none never become a step. */
function checkFacts(f: SwapFacts): void {
  for (const [field, n] of [
    ['old', f.old],
    ['fresh', f.fresh],
  ] as const)
    if (n) need(`${field}.lengthMm`, n.lengthMm, ...LENGTH_MM, 'mm')
  need('turn.setC', f.turn.setC, 0, 600, '°C')
  checkHead(f)
}

/**
 * The steps of a swap, in their order. Temperatures are setpoints of this head, its sensor's check allowed for. Throws
 * InputError for a number outside its range.
 */
export function swapSteps(f: SwapFacts): Step[] {
  checkFacts(f)
  const { old, fresh, turn } = f
  const wait = (setC: number): Wait => ({ heater: 'nozzle', head: f.head, setC })
  const turnC = celsius(turn.setC)
  return [
    step('take', `Take ${fresh.tag} from the shelf and look at it`, {
      says: [
        `${fresh.tag} is ${fresh.words}. Bore round, tip whole, thread clean and dry.`,
        ...(fresh.insert ? ['Its tip is an insert: no clamp and no blow on it; a loose one is not fitted.'] : []),
        ...(fresh.plated ? ['Its plating is what keeps it: no wire brush, no needle from outside.'] : []),
        ...(fresh.brittle ? ['It is hard and brittle: do not drop it, do not lever on the tip.'] : []),
      ],
      fields: [
        field.number('lengthMm', 'Its whole length by caliper', LENGTH_MM, 'mm', {
          help:
            `On record ${mmNumber(fresh.lengthMm, 2)} mm, by ${fresh.lengthBy === 'gauge' ? 'a gauge' : 'its type'}. ` +
            'Leave it empty to go by that.',
        }),
      ],
    }),
    raise(),
    prop(),
    step('protect', 'Eye protection and heat gloves on', {
      says: [
        ...(f.sock
          ? ['The silicone sock off now, while it is cold: it hides leaks, and the spanner needs the block.']
          : []),
        'From here on it burns at once. Two spanners, a socket for the nozzle and a place for the hot one at hand.',
      ],
      hazards: hazards('gloves', 'burns', ...(f.liner ? ['ptfe'] : [])),
    }),
    step('heat', `Set the nozzle to ${turnC} at the printer`, {
      says: [
        turn.material === null
          ? 'Nothing tells what went through; this melts what most leave. This app does not heat.'
          : `${turn.material} went through since it was last purged clean. This app does not heat.`,
        'Wait until it is there: cold residue tears the thread.',
      ],
      hazards: hazards('cold reading'),
      wait: wait(turn.setC),
    }),
    step('unload', 'Unload the filament while it is hot', {
      says: [f.holds === null ? 'Pull back what is in it.' : `Pull the ${f.holds} back, out of the hotend.`],
    }),
    step('still', 'Motion off', {
      says: ['Motors disabled, so that nothing moves while hands are in there. The heater stays on.'],
      hazards: hazards('live leads'),
    }),
    ...(old === null
      ? []
      : [
          step('out', `Turn ${old.tag} out`, {
            says: [
              'Hold the block with the second spanner: it carries heater leads and heat break, and must not turn.',
              'Anticlockwise, seen from below. Tools away from the heater and sensor leads: they are live.',
              'If it does not come, stop. Not harder: hotter, within the ceiling, or the whole hotend.',
            ],
            hazards: hazards('turning', 'live leads'),
            wait: wait(turn.setC),
          }),
        ]),
    step('look in', 'Look up into the thread', {
      says: ['No residue and no old ring on the seat: wipe it hot with a wooden stick, never scrape it.'],
    }),
    step('in', `Turn ${fresh.tag} in with the socket`, {
      says: [
        'Never by bare hand. Clockwise, seen from below, finger force on the socket, until it stops on the heat break.',
        'It must seat on the break, with a gap left between its flange and the block. If the flange touches first, ' +
          'the break sits too low: turn the nozzle out, break down half a turn, again.',
      ],
      hazards: hazards('burns'),
      wait: wait(turn.setC),
    }),
    step('tight', 'Tighten it hot', {
      says: [
        `Block held, snug and a little more: ${torqueWords(f.torque)}`,
        ...(fresh.insert ? ['Spanner on the flats only; the insert carries nothing.'] : []),
      ],
      hazards: hazards('turning'),
      wait: wait(turn.setC),
    }),
    ...resnug(f),
    leaks(),
    step('clear', 'Tools and block out, motors on', {
      says: [
        'The block under the axis first. Hands out before the motors are on.',
        ...(f.sock ? ['The sock goes back on once the block is cold, not now.'] : []),
      ],
      hazards: hazards('falling axis'),
    }),
    ...backToWork(f),
  ]
}
