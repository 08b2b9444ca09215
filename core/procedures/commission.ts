/**
 * Commissioning a new or rebuilt printer, worked out from its stack: from the transport locks to a watched first layer,
 * with what must be proved before it runs on its own. Source: common practice, no source.
 */
import { GUARDS, type Guard } from '../chamber'
import { ceilings, type Part, type Printer, type Role, type Rules } from '../limits'
import { need } from '../numeric'
import { listed } from '../words'
import { field, hazards, step } from './make'
import type { Step } from './types'

export interface CommissionFacts {
  printer: string
  heads: readonly { id: number; name: string; nozzle: string | null }[]
  gears: readonly string[]
  tubes: readonly string[]
  /** Parts on mains voltage. */
  mains: readonly string[]
  ventilation: string | null
  enclosed: boolean
  guards: readonly Guard[]
  /** First heat of the nozzle, °C as set: warm enough to tell, within every part's limit. */
  nozzleC: number
  bedC: number
}

/** How hot it is made the first time, °C as set. */
const FIRST_HEAT_C = { nozzle: 200, bed: 60 } as const
const MOST_EARTH_OHM = 100

/** What can be tested of a printer: runaway protection of each heater, and the cut-outs that it should have. */
export function guardsOf(printer: { parts: readonly Pick<Part, 'role'>[] }): Guard[] {
  const heated = printer.parts.some(p => p.role === 'chamber heater')
  return GUARDS.filter(g => heated || !g.startsWith('chamber'))
}

/** What a commissioning is worked out from; its first heat stays within every hotend's own limit. */
export function commissionFacts(printer: Printer, rules: Rules): CommissionFacts {
  const of = (role: Role) => printer.parts.filter(p => p.role === role)
  const names = (parts: readonly Part[]) => [...new Set(parts.map(p => p.name))]
  const hotends = ceilings(printer, rules).filter(c => c.zone === 'hotend')
  return {
    printer: printer.name,
    heads: printer.heads.map(h => ({ id: h.id, name: h.name, nozzle: h.nozzle?.tag ?? null })),
    gears: names(of('gears')),
    tubes: names(of('feed tube')),
    mains: names(printer.parts.filter(p => p.details.mains)),
    ventilation: of('ventilation')[0]?.name ?? null,
    enclosed: of('enclosure').length > 0,
    guards: guardsOf(printer),
    nozzleC: Math.min(FIRST_HEAT_C.nozzle, ...hotends.map(c => Math.floor(c.limitC))),
    bedC: FIRST_HEAT_C.bed,
  }
}

/** The steps of a commissioning. Throws InputError for a temperature outside its range. */
export function commissionSteps(f: CommissionFacts): Step[] {
  need('nozzleC', f.nozzleC, 0, 600, '°C')
  need('bedC', f.bedC, 0, 300, '°C')
  const several = f.heads.length > 1
  const unpacked = ['unpack', 'locks']
  return [
    step('unpack', 'Unpack it, two at it', {
      says: ['Lift at the frame, never at gantry or hood. Look for what was bent or broken on the way.'],
      hazards: hazards('heavy'),
      after: [],
    }),
    step('locks', 'Take off every transport lock', {
      says: ['Clamps at the axes, ties at the gantry, foam under bed and hood. Move every axis by hand, end to end.'],
      after: ['unpack'],
      fields: [field.text('locks', 'How many came off', { help: 'They are kept with the printer.' })],
    }),
    step('path', 'Gears and feed tube', {
      says: [
        f.gears.length > 0 ? `Gears: ${listed(f.gears, 'and')}.` : 'Which gears it has is not described.',
        f.tubes.length > 0
          ? `Feed tube: ${listed(f.tubes, 'and')}; no tight bend, no loose end.`
          : 'No feed tube is described.',
      ],
      after: unpacked,
    }),
    ...f.heads
      .filter(h => h.nozzle === null)
      .map(h =>
        step(`nozzle ${h.id}`, `Fit a nozzle${several ? ` to ${h.name}` : ''} and log it`, {
          says: ['Cold, loosely by the socket; it is tightened hot, after the first heat.'],
          hazards: hazards('turning'),
          after: unpacked,
          proof: { of: 'nozzle', guard: null, headId: h.id },
        }),
      ),
    step('wiring', 'Wiring', {
      says:
        f.mains.length > 0
          ? [
              `On mains voltage: ${listed(f.mains, 'and')}. A licensed electrician wires and tests it, to local code.`,
              'Strain relief at both ends, no lead near a moving part.',
            ]
          : ['No part on mains voltage is described. Strain relief at both ends, no lead near a moving part.'],
      hazards: f.mains.length > 0 ? hazards('mains') : [],
      after: unpacked,
      fields: [
        field.text('wiredBy', f.mains.length > 0 ? 'Who wired and tested it, with licence' : 'Who looked it over', {
          required: true,
        }),
        ...(f.mains.length > 0
          ? [
              field.number('earthOhm', 'Protective earth, bed and frame to plug', [0, MOST_EARTH_OHM], 'Ω', {
                help: 'As the electrician measured it.',
              }),
            ]
          : []),
      ],
    }),
    step('air', 'Extraction', {
      says: [
        f.ventilation === null
          ? 'How it is ventilated is not described.'
          : `It has: ${f.ventilation}. Smoke held at the opening is drawn in, with hood and door as they will be.`,
      ],
      hazards: hazards('fumes'),
      after: ['unpack'],
    }),
    step('level', 'Level the bed cold', {
      says: ['Three points by feeler, then round again. It is levelled hot once it has been heated.'],
      after: unpacked,
    }),
    step('probe', 'Calibrate the probe, if it has one', {
      says: ['A printer without a probe: go on.'],
      after: ['level'],
    }),
    ...f.heads.map((h, i) =>
      step(`heat ${i}`, `First heat${several ? ` of ${h.name}` : ''}: nozzle to ${f.nozzleC} °C`, {
        says: [
          'The room ventilated, somebody beside it the whole time, the switch in reach. Oil smells; nothing smokes.',
          'It climbs steadily from the start: a heater that does nothing, or a number that jumps, is a wiring fault.',
        ],
        hazards: hazards('fire', 'burns'),
        wait: { heater: 'nozzle', head: i, setC: f.nozzleC },
      }),
    ),
    step('heat bed', `First heat: bed to ${f.bedC} °C`, {
      says: ['The same with the bed. Then feel along its leads, with it switched off: none is warm.'],
      hazards: hazards('fire'),
      wait: { heater: 'bed', head: 0, setC: f.bedC },
    }),
    ...f.guards.map(guard =>
      step(`guard ${guard}`, `Prove it: ${guard}`, {
        says: ['It counts as its test in Verify says, not by a tick here.'],
        hazards: hazards('fire'),
        proof: { of: 'cut-out test', guard, headId: null },
      }),
    ),
    ...f.heads.map((h, i) =>
      step(`sensor ${i}`, `Check the sensor${several ? ` of ${h.name}` : ''} against a reference`, {
        says: ['What it shows counts for every limit.'],
        hazards: hazards('probe leads'),
        proof: { of: 'sensor check', guard: null, headId: h.id },
      }),
    ),
    ...(f.enclosed
      ? [
          step('warm-up', 'Record a warm-up, or survey the chamber', {
            says: ['How warm the air gets, and how long it takes, is asked of every job.'],
            proof: { of: 'chamber', guard: null, headId: null },
          }),
        ]
      : []),
    step('level hot', 'Level it hot, after the soak', {
      says: ['Three points, then round again: warm frames move.'],
      proof: { of: 'level', guard: null, headId: null, since: 'heat bed' },
    }),
    step('first layer', 'Watch a first layer', {
      says: ['0.3 mm high, 15 mm/s: flat, no ridges, no gaps, the same at every corner.'],
    }),
  ]
}
