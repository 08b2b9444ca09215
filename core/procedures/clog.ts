/**
 * Clearing a clog, worked out for one head: by the construction of its nozzle and what stands in it. Purge and needle
 * first, then a cold pull; burning out is a school that is advised against, and refused where it ruins the nozzle or
 * gives off what nobody may breathe. °C as set at the printer, mm. Source: common practice, no source; the rule for
 * the temperature of a cold pull is from memory.
 */
import { need, needIfKnown } from '../numeric'
import { celsius, listed, mmNumber } from '../words'
import type { NozzleMaterial } from '../wear'
import { field, hazards, step } from './make'
import { checkPurging, purgedTo, raise, type HeadFacts } from './shared'
import type { SwapNozzle } from './swap'
import type { Step, Values, Wait } from './types'

/** Bores that can be cleared, mm. */
export const CLOG_BORE_MM = [0.1, 2] as const
/** So much thinner than the bore a needle is, mm, and in which steps they come. */
const NEEDLE_LESS_MM = 0.03
const NEEDLE_STEP_MM = 0.05

/**
 * The thickest needle that goes into a bore without forcing it, mm; `boreMm` 0.1 to 2 mm as it was made. Throws
 * InputError.
 *
 * @example
 * needleMm(0.4) // 0.35
 */
export function needleMm(boreMm: number): number {
  need('boreMm', boreMm, ...CLOG_BORE_MM, 'mm')
  const steps = Math.floor((boreMm - NEEDLE_LESS_MM + 1e-9) / NEEDLE_STEP_MM)
  return Number((Math.max(1, steps) * NEEDLE_STEP_MM).toFixed(2))
}

/** Above the glass transition, and below the melting point, a polymer comes out in one piece, °C. */
const OVER_GLASS_C = 28
const UNDER_MELT_C = 85
const GLASS_C = [-100, 400] as const
const MELT_C = [50, 500] as const

/**
 * Where a cold pull begins, °C: rubbery, and not yet a melt; the higher of glass transition + 28 and melting point −
 * 85. Null where neither is known. `glassC` −100 to 400 °C, `meltC` 50 to 500 °C, null for none. Throws InputError.
 *
 * @example
 * coldPullC({ glassC: 60, meltC: null }) // 88
 */
export function coldPullC({ glassC, meltC }: { glassC: number | null; meltC: number | null }): number | null {
  needIfKnown('glassC', glassC, ...GLASS_C, '°C')
  needIfKnown('meltC', meltC, ...MELT_C, '°C')
  const each = [...(glassC === null ? [] : [glassC + OVER_GLASS_C]), ...(meltC === null ? [] : [meltC - UNDER_MELT_C])]
  return each.length === 0 ? null : Math.round(Math.max(...each))
}

/** Whether a nozzle may be burnt out, in words: never recommended, and refused where `refused` says so. */
export function burnOut(n: { material: NozzleMaterial; insert: boolean; plated: boolean }, liner: boolean) {
  const why = [
    ...(n.insert ? ['its insert comes loose'] : []),
    ...(n.plated ? ['its plating goes'] : []),
    ...(n.material === 'brass' ? ['brass softens'] : []),
    ...(liner ? ['the liner above it gives off poisonous fumes'] : []),
  ]
  return {
    refused: why.length > 0,
    says:
      why.length > 0
        ? `Never burn it out with a torch: ${listed(why, 'and')}.`
        : 'Some burn a solid nozzle out with a torch, off the printer. Advised against: fumes, fire, oxidation, ' +
          'thermal shock. Another nozzle costs less.',
  }
}

export interface ClogFacts extends Pick<HeadFacts, 'place' | 'head' | 'sock' | 'liner' | 'materials' | 'holds'> {
  nozzle: SwapNozzle
  material: NozzleMaterial
  boreMm: number
  /** What melts all that may stand in it, within the ceiling. */
  softC: number
  /** Where a cold pull of what stands in it begins; null where nobody can tell. */
  pullC: number | null
}

const RESULTS = [
  { value: 'runs', text: 'it runs again' },
  { value: 'better', text: 'better, not whole' },
  { value: 'no change', text: 'no change' },
  { value: 'not needed', text: 'not needed' },
] as const
/** What cleared it, as it is logged. */
export const CLEARED_BY = ['feeding', 'needle', 'cold pull', 'purge', 'nothing'] as const
const CLEARED_TEXT: Record<(typeof CLEARED_BY)[number], string> = {
  'feeding': 'feeding by hand',
  'needle': 'the needle',
  'cold pull': 'the cold pull',
  'purge': 'purging',
  'nothing': 'nothing: it is still blocked',
}

/**
 * The steps of clearing a clog, in their order. Throws InputError for a number outside its range.
 */
export function clogSteps(f: ClogFacts): Step[] {
  need('softC', f.softC, 0, 600, '°C')
  needIfKnown('pullC', f.pullC, 0, 600, '°C')
  need('head', f.head, 0, 63)
  checkPurging(f)
  const { tag } = f.nozzle
  const hot: Wait = { heater: 'nozzle', head: f.head, setC: f.softC }
  const needle = mmNumber(needleMm(f.boreMm), 2)
  const burn = burnOut({ ...f.nozzle, material: f.material }, f.liner)
  return [
    raise(),
    step('protect', 'Eye protection and heat gloves on', {
      says: [
        ...(f.sock ? ['The silicone sock off now, while it is cold: it hides where plastic comes out.'] : []),
        'Needle, pliers and a place for hot plastic at hand. What comes loose can spit.',
      ],
      hazards: hazards('gloves', 'burns', ...(f.liner ? ['ptfe'] : [])),
    }),
    step('heat', `Set the nozzle to ${celsius(f.softC)} at the printer`, {
      says: [
        f.holds === null
          ? 'What stands in it is not logged; this melts all that went through. This app does not heat.'
          : `${f.holds} stands in it. This app does not heat.`,
      ],
      hazards: hazards('cold reading', 'fumes'),
      wait: hot,
    }),
    step('feed', 'Feed by hand, gently', {
      says: [
        'A steady push of ten seconds, no more: a strand that buckles blocks the way above it as well.',
        'Nothing comes: it is blocked. Thin, or curling to one side: something sits in the bore.',
      ],
      fields: [
        field.choice(
          'shows',
          'What comes',
          ['nothing', 'thin or curling', 'it comes and goes', 'it runs'].map(v => ({ value: v, text: v })),
          { required: true },
        ),
      ],
      wait: hot,
    }),
    step('needle', `A needle of ${needle} mm, from below`, {
      says: [
        `${tag} is ${mmNumber(f.boreMm, 2)} mm: ${needle} mm goes in without force. In and out, straight, and feed ` +
          'again. Never drill, never turn it.',
        ...(f.nozzle.insert ? ['Its tip is an insert: no side load, it comes loose.'] : []),
        ...(f.nozzle.plated ? ['Its plating is what keeps it: no scraping inside.'] : []),
        ...(f.nozzle.brittle ? ['It is hard and brittle: a needle that is bent against its edge chips it.'] : []),
      ],
      hazards: hazards('burns'),
      fields: [field.choice('needle', 'What the needle did', RESULTS, { required: true })],
    }),
    step('pull', f.pullC === null ? 'Cold pull' : `Cold pull, from ${celsius(f.pullC)}`, {
      says: [
        'Unfilled filament of the kind that stands in it, where the shop has it: fibres make the pull break. Fed in ' +
          `at ${celsius(f.softC)} until it is full.`,
        f.pullC === null
          ? `At what temperature ${f.holds ?? 'it'} lets go in one piece is not known here: cool it in steps of ` +
            '10 °C until it comes as a rod, and note where.'
          : `Set ${celsius(f.pullC)} and let it cool there, then one quick pull, straight up. It stretches: 5 °C ` +
            'lower. It tears, or does not move: 5 °C higher, never harder.',
        'Heat, fill and pull again until the end comes out clean and with the shape of the tip; five times at most.',
      ],
      hazards: hazards('burns'),
      fields: [
        field.choice('pull', 'What the pull did', RESULTS, { required: true }),
        field.number('pulledC', 'It came at', [40, 400], '°C', {
          help: 'As the printer showed it; for the next time.',
        }),
      ],
    }),
    step('purge', 'Load, and purge until it runs clean', {
      says: ['A straight strand of the same thickness for half a metre.'],
      hazards: hazards('fumes'),
      wait: hot,
      fields: [purgedTo(f, ' Of one still blocked: what is in it.')],
    }),
    step('cleared', 'What cleared it', {
      says: [
        `Still blocked: swap ${tag}, and look into the break above it. Its printer stays out of service until then.`,
        burn.says,
      ],
      hazards: hazards('torch'),
      fields: [
        field.choice(
          'clearedBy',
          'It runs again by',
          CLEARED_BY.map(value => ({ value, text: CLEARED_TEXT[value] })),
          { required: true },
        ),
      ],
    }),
  ]
}

/** What to ask about what is said to have cleared it; null where it fits what was entered at its step. */
export function clogDoubt(values: Values): string | null {
  const said: Values = { 'needle': values.needle ?? null, 'cold pull': values.pull ?? null }
  const by = said[String(values.clearedBy)] ?? null
  return by === 'not needed' || by === 'no change' ? `At its step stands “${by}”. Was it that?` : null
}
