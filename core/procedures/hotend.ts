/**
 * Changing a whole hotend, worked out for one head: power off and cold, every plug back in its port, what the firmware
 * must know of the new sensor, and what must be proved before it heats alone. °C as set at the printer, N·m. Source:
 * common practice, no source, but for the torque (`changeover`).
 */
import type { Guard } from '../chamber'
import { need, needIfKnown } from '../numeric'
import { celsius, listed } from '../words'
import { field, hazards, step } from './make'
import { backToWork, checkHead, leaks, prop, raise, resnug, torqueWords, type HeadFacts } from './shared'
import type { Step, Values, Wait } from './types'

/** What a hotend is to the firmware and to the one who plugs it in. */
export interface HotendThing {
  id: number
  tag: string
  nozzle: { id: number; tag: string; words: string } | null
  /** Names of its heater and its sensor; null where they are not described. */
  heater: string | null
  sensor: string | null
}

export interface HotendFacts extends HeadFacts {
  headId: number
  old: HotendThing | null
  fresh: HotendThing & { nozzle: NonNullable<HotendThing['nozzle']> }
  /** Whether the firmware reads its sensor as it read the one before; null where that cannot be told. */
  sameSensor: boolean | null
  /** The firmware's ceiling on record, and the most that the weakest part inside is rated for; °C. */
  firmware: { wasC: number | null; mostC: number; weakest: string }
  /** Snugged hot for the first time, as set. */
  snug: { setC: number; material: string | null }
  /** What the loop is tuned at, as set. */
  tuneC: number
  /** Room, for what it must show before it heats. */
  roomC: number
}

/** Leads of a hotend; the first two every one has. */
export const LEADS = ['heater', 'sensor', 'hotend fan', 'part fan'] as const
/** What stops a hotend that runs away: proved anew on each. */
export const HOTEND_GUARDS: readonly Guard[] = ['hotend runaway protection', 'hotend thermal cut-out']
/** What it may show before power goes off, °C; warmer, and it is still cooling. */
export const COOLED_C = [-20, 45] as const
/** As far as it is heated before anything is known of it, °C. */
const FIRST_C = 150
/** A firmware ceiling lower than this is none, and no hotend stands less; °C. */
export const CEILING_C = [100, 900] as const
/** A sensor that shows the room this far off is the wrong type, or in the wrong port, °C. */
export const ROOM_FAR_C = 8
const ROOM_C = [5, 45] as const
/** What a cold hotend may show, °C. */
const SHOWN_COLD_C = [-20, 60] as const

function checkFirmware({ firmware }: HotendFacts): void {
  need('firmware.mostC', firmware.mostC, ...CEILING_C, '°C')
  needIfKnown('firmware.wasC', firmware.wasC, 0, CEILING_C[1], '°C')
}

/** What the firmware must be told of the new one, in words: nothing when both are alike. */
export function matchWords(f: HotendFacts): string[] {
  checkFirmware(f)
  const { old, fresh, firmware } = f
  const out: string[] = []
  if (f.sameSensor === null)
    out.push(
      `Whether ${fresh.sensor ?? 'its sensor'} is of the type set now cannot be told: look at both before it heats.`,
    )
  else if (f.sameSensor) out.push(`Its sensor, ${fresh.sensor}, is of the type that is set already.`)
  else out.push(`Set the sensor type: ${fresh.sensor} instead of ${old?.sensor ?? 'what was there'}.`)
  const stands = `${fresh.tag} stands ${celsius(firmware.mostC)} (${firmware.weakest})`
  if (firmware.wasC === null) out.push(`${stands}: the firmware's ceiling must not be higher.`)
  else if (firmware.wasC > firmware.mostC)
    out.push(`Lower the ceiling from ${celsius(firmware.wasC)}: ${stands}, and must not be heated past it.`)
  else out.push(`The ceiling of ${celsius(firmware.wasC)} may stay: ${stands}.`)
  return out
}

/** What to ask of a sensor that shows the room, °C; null where it is near it. */
export function roomDoubt(f: HotendFacts, values: Values): string | null {
  const { showsC } = values
  need('roomC', f.roomC, ...ROOM_C, '°C')
  if (typeof showsC !== 'number') return null
  need('showsC', showsC, ...SHOWN_COLD_C, '°C')
  if (Math.abs(showsC - f.roomC) <= ROOM_FAR_C) return null
  return (
    `Cold it should show about ${celsius(f.roomC)}; ${celsius(showsC)} is far from it. Is the sensor type right, and ` +
    'its plug in its port?'
  )
}

function checkFacts(f: HotendFacts): void {
  checkHead(f)
  checkFirmware(f)
  need('snug.setC', f.snug.setC, 0, 600, '°C')
  need('tuneC', f.tuneC, 0, 600, '°C')
  need('roomC', f.roomC, ...ROOM_C, '°C')
}

/**
 * The steps of changing a hotend, in their order. Temperatures are setpoints of this head. Throws InputError for a
 * number outside its range.
 */
export function hotendSteps(f: HotendFacts): Step[] {
  checkFacts(f)
  const { old, fresh } = f
  const wait = (setC: number): Wait => ({ heater: 'nozzle', head: f.head, setC })
  const firstC = Math.min(FIRST_C, f.tuneC)
  const ports = LEADS.map(l => `port ${l}`)
  const was = old?.tag ?? 'The head'
  return [
    step('take', `Take ${fresh.tag} from the shelf and look at it`, {
      says: [
        `${fresh.nozzle.tag}, ${fresh.nozzle.words} mm, is in it. Leads whole, screws of heater and sensor tight, ` +
          'nothing loose in the block.',
        ...(fresh.heater === null || fresh.sensor === null
          ? ['Not all that is inside is described: read heater and sensor off the parts.']
          : [
              `Its heater: ${fresh.heater}. Its sensor: ${fresh.sensor}.`,
              'Voltage and power on the heater are those of the one before, or the board is the wrong one for it.',
            ]),
      ],
    }),
    step('unload', 'Unload the filament, warm', {
      says: [
        'Pull back what is in it. If it does not come, cut it above the hotend: it is cleared later, at the bench.',
      ],
      hazards: hazards('burns', 'gloves'),
    }),
    raise(),
    step('cool', 'Heaters off, fans on, let it cool', {
      says: [
        'The fan of the cold side runs until it is cold: stopped early, heat creeps up and melts what is in there.',
        'What it shows is no proof that it may be touched; heat gloves stay on until a hand beside it feels nothing.',
      ],
      hazards: hazards('cold reading', 'burns'),
      fields: [
        field.number('coldC', 'What the nozzle shows before power goes off', COOLED_C, '°C', {
          required: true,
          help: `Warmer than ${COOLED_C[1]} °C: wait longer.`,
        }),
      ],
    }),
    prop(),
    step('isolate', 'Isolate power: off at the switch, plug out', {
      says: [
        'The plug lies where you see it, and nobody else puts it in. Not only off on the screen.',
        'Work inside the mains part is for a licensed electrician; here only low-voltage plugs are touched.',
      ],
      hazards: hazards('mains', 'falling axis'),
    }),
    step('ports', 'Write down which plug sits in which port, and photograph them', {
      says: ['Before the first one is pulled. Board and cable chain from near by, so that colours can be told.'],
      hazards: hazards('plugs'),
      fields: [
        ...LEADS.map((l, i) =>
          field.text(ports[i]!, `Port of the ${l}`, {
            required: l === 'heater' || l === 'sensor',
            help: l === 'heater' ? 'Plug and port as they are marked, with the colours of the leads.' : '',
          }),
        ),
        field.photo('photo', 'Picture of the connectors'),
      ],
    }),
    ...(old === null
      ? []
      : [
          step('out', `Take ${old.tag} off`, {
            says: [
              'Plugs by their housings, never by the leads. Hold the hotend before its last screw is out.',
              `${old.tag} goes to the shelf as it is${old.nozzle ? `, with ${old.nozzle.tag} in it` : ''}.`,
            ],
          }),
        ]),
    step('in', `Fit ${fresh.tag}`, {
      says: [
        'Square and down on its seat, screws crosswise. No lead under a screw, none near a moving part.',
        'Strain relief before the first move: a lead that bends at its crimp breaks there.',
      ],
    }),
    step('plug', 'Plug every lead into its own port', {
      says: ['Pushed home, and tugged. The heater and the sensor of this head, not of its neighbour.'],
      recalls: [...ports, 'photo'],
      hazards: hazards('plugs'),
    }),
    step('firmware', 'Sensor type and ceiling in the firmware, before it heats', {
      says: [...matchWords(f), 'Power on with hands out; heaters stay off until the next step is done.'],
      hazards: hazards('sensor'),
      fields: [
        field.text('sensorType', 'Sensor type that is set now', {
          required: true,
          help: 'As the firmware names it, read there.',
        }),
        field.number('ceilingC', 'Ceiling that is set now', [CEILING_C[0], f.firmware.mostC], '°C', {
          required: true,
          help: `At most ${celsius(f.firmware.mostC)}: ${f.firmware.weakest}.`,
        }),
      ],
    }),
    step('cold', 'Read it cold', {
      says: [`It must show the room, about ${celsius(f.roomC)}, and rise at once when warm air reaches the block.`],
      fields: [field.number('showsC', 'It shows', SHOWN_COLD_C, '°C', { required: true })],
    }),
    step('heat', `First heat: ${celsius(firstC)}, somebody beside it`, {
      says: [
        'It climbs steadily from the start. If it stays or jumps, off at the switch: it is a plug or the sensor type.',
        'This app does not heat.',
      ],
      hazards: hazards('fire', 'burns'),
      wait: wait(firstC),
    }),
    step('tune', `Tune the control loop at ${celsius(f.tuneC)}`, {
      says: [
        'Another heater and block answer otherwise: with the old numbers it overshoots or swings. Sock and fan on.',
      ],
      fields: [
        field.text('loop', 'Numbers of the loop, and stored in the printer', {
          required: true,
          help: 'As the tuning found them.',
        }),
      ],
      wait: wait(f.tuneC),
    }),
    ...HOTEND_GUARDS.map(guard =>
      step(`guard ${guard}`, `Prove it: ${guard}`, {
        says: [
          'A new heater and a new sensor: what was proved of the old ones counts no more. It counts by its test in ' +
            'Verify, not by a tick here.',
        ],
        hazards: hazards('fire'),
        proof: { of: 'cut-out test', guard, headId: null, since: 'in' },
      }),
    ),
    step('snug', `Set ${celsius(f.snug.setC)} and snug the nozzle`, {
      says: [
        'Fitted at the bench it is only tight cold. Eye protection; block held with the second spanner, snug and a ' +
          `little more: ${torqueWords(f.torque)}`,
      ],
      hazards: hazards('turning', 'gloves', 'live leads', ...(f.liner ? ['ptfe'] : [])),
      wait: wait(f.snug.setC),
    }),
    ...resnug(f),
    leaks(),
    step('clear', 'Tools and block out, motors on', {
      says: [
        'The block under the axis first. Hands out before the motors are on.',
        'Move every axis end to end, slowly: no lead pulls, none rubs.',
        ...(f.sock ? ['The sock goes on once the block is cold, not now.'] : []),
      ],
      hazards: hazards('falling axis'),
    }),
    ...backToWork(f).map(s =>
      s.key === 'z'
        ? {
            ...s,
            says: [
              `${was} and ${fresh.tag} never reach equally far: no number from before holds. Come from well above.`,
              ...s.says,
            ],
          }
        : s,
    ),
  ]
}

/** The ports that were written down, in words. */
export const portsOf = (values: Values): string =>
  listed(
    Object.entries(values).flatMap(([key, value]) =>
      key.startsWith('port ') && typeof value === 'string' && value !== '' ? [`${key.slice(5)} ${value}`] : [],
    ),
    'and',
  )
