/* eslint-disable max-lines -- a table: how likely each sign and each result of a test is under each cause */
/**
 * How likely each sign is under each cause, and each result of a test. `usual` is under every cause that is not named.
 * All lie between 0.05 and 0.95, so that no sign weighs more than 19 to 1, seen or looked for in vain. What stands in
 * one group hangs together (water is heard, seen and counted by a clock): the first counts in full, a test before a
 * sign, and each further one by its root.
 * Source: common practice, no source; the reason stands with each row.
 */
import type { Action } from '../cautions'
import type { Cause } from './causes'

/** No chance in the table is nearer to none or to all. */
export const CHANCE = [0.05, 0.95] as const

export interface Row {
  /** Under every cause that is not named. */
  usual: number
  under: Partial<Record<Cause, number>>
  /** Signs of one group hang together. */
  group: string | null
  /** Seen at the print, or told by the shop's records. */
  from: 'print' | 'records'
  reason: string
}
const print = (usual: number, under: Row['under'], reason: string, group: string | null = null): Row => ({
  usual,
  under,
  group,
  from: 'print',
  reason,
})
const records = (usual: number, under: Row['under'], reason: string, group: string | null = null): Row => ({
  usual,
  under,
  group,
  from: 'records',
  reason,
})

/** Signs, in the order in which those of a group count. */
export const SIGNS = {
  // water
  'steam or bubbles in the strand': print(0.06, { moisture: 0.7 }, 'Only water boils in the melt.', 'water'),
  'popping': print(0.08, { 'moisture': 0.8, 'sensor off': 0.12 }, 'Water boils at the tip and cracks.', 'water'),
  'spool wet by its clock': records(
    0.2,
    { 'moisture': 0.85, 'worn nozzle': 0.25 },
    'Hours out and the dryings that were logged.',
    'water',
  ),
  'spool dry by its clock': records(
    0.6,
    { 'moisture': 0.15, 'brittle filament': 0.85 },
    'Hours out and the dryings that were logged; a dry box may leak.',
    'water',
  ),
  // strings
  'stringing': print(
    0.15,
    { 'moisture': 0.75, 'sensor off': 0.6, 'wrong profile': 0.35, 'worn nozzle': 0.3 },
    'Thin melt: water, or hotter than shown.',
    'strings',
  ),
  'ooze': print(
    0.12,
    { 'moisture': 0.4, 'sensor off': 0.6, 'worn nozzle': 0.3, 'wrong profile': 0.25 },
    'Thin melt, or a wide bore.',
    'strings',
  ),
  // delivery
  'under-extruded': print(
    0.2,
    {
      'partial clog': 0.8,
      'grip': 0.8,
      'melting limit': 0.7,
      'steps or diameter': 0.85,
      'heat creep': 0.75,
      'residue': 0.4,
      'wrong profile': 0.4,
      'bend or tangle': 0.7,
      'brittle filament': 0.4,
      'sensor off': 0.4,
      'moisture': 0.3,
      'plate or adhesive': 0.06,
      'cold or drafty chamber': 0.06,
    },
    'Less comes out than is told.',
  ),
  'gaps at speed': print(
    0.1,
    { 'melting limit': 0.85, 'grip': 0.75, 'partial clog': 0.45, 'bend or tangle': 0.25 },
    'Slow walls are whole, fast infill is not.',
  ),
  'gears grind or click': print(
    0.1,
    {
      'grip': 0.8,
      'partial clog': 0.45,
      'heat creep': 0.6,
      'bend or tangle': 0.5,
      'residue': 0.45,
      'melting limit': 0.35,
      'wrong profile': 0.2,
    },
    'The gears slip, or push against something.',
  ),
  'nothing comes out': print(
    0.06,
    {
      'heat creep': 0.55,
      'residue': 0.5,
      'partial clog': 0.25,
      'brittle filament': 0.7,
      'bend or tangle': 0.5,
      'grip': 0.2,
    },
    'Blocked, or no filament arrives.',
  ),
  'filament snapped': print(
    0.05,
    { 'brittle filament': 0.9, 'bend or tangle': 0.6 },
    'Stiff filled filament breaks where it bends.',
  ),
  'strand curls to one side': print(
    0.12,
    { 'partial clog': 0.7, 'worn nozzle': 0.4, 'residue': 0.4 },
    'The mouth is not round, or something stands in it.',
  ),
  // shape of the lines
  'uneven lines': print(
    0.2,
    { 'worn nozzle': 0.8, 'moisture': 0.55, 'partial clog': 0.6, 'residue': 0.6, 'grip': 0.4, 'bend or tangle': 0.4 },
    'Late sign of wear, and of anything that comes and goes.',
  ),
  'lines thicker than set': print(
    0.08,
    { 'worn nozzle': 0.7, 'steps or diameter': 0.35 },
    'A wide bore lays wide lines.',
  ),
  'blobs': print(
    0.15,
    { 'moisture': 0.35, 'residue': 0.5, 'sensor off': 0.35, 'worn nozzle': 0.3 },
    'Charred pieces, steam, or melt that runs.',
  ),
  // the part
  'warped corners': print(
    0.1,
    { 'cold or drafty chamber': 0.85, 'plate or adhesive': 0.65, 'wrong profile': 0.4, 'Z or level': 0.25 },
    'It shrinks, or it does not hold.',
  ),
  'split layers': print(
    0.08,
    {
      'cold or drafty chamber': 0.75,
      'wrong profile': 0.55,
      'sensor off': 0.45,
      'moisture': 0.2,
      'melting limit': 0.2,
    },
    'Layers were too cold to bond.',
  ),
  'bad first layer': print(
    0.05,
    { 'Z or level': 0.9, 'plate or adhesive': 0.75, 'wrong profile': 0.25 },
    'Height, level, or what it lies on.',
  ),
  // when
  'from the start': print(
    0.4,
    {
      'wrong profile': 0.8,
      'steps or diameter': 0.85,
      'Z or level': 0.9,
      'plate or adhesive': 0.7,
      'sensor off': 0.75,
      'residue': 0.65,
      'heat creep': 0.1,
      'cold or drafty chamber': 0.2,
      'bend or tangle': 0.25,
    },
    'What is set wrong is wrong at once.',
    'when',
  ),
  'after some hours': print(
    0.2,
    {
      'heat creep': 0.85,
      'moisture': 0.5,
      'cold or drafty chamber': 0.5,
      'bend or tangle': 0.6,
      'Z or level': 0.06,
      'wrong profile': 0.06,
      'steps or diameter': 0.06,
    },
    'Heat climbs, water comes in, a spool catches.',
    'when',
  ),
  'since the nozzle was changed': print(
    0.1,
    { 'Z or level': 0.6, 'partial clog': 0.12, 'residue': 0.2, 'steps or diameter': 0.15 },
    'Its length is another.',
  ),
  'again at the same height': print(
    0.2,
    { 'wrong profile': 0.4, 'moisture': 0.06, 'grip': 0.1, 'bend or tangle': 0.1, 'something else': 0.4 },
    'What comes at one height is in the file or the machine.',
  ),
  // records: nozzle
  'bore probably past its limit': records(0.1, { 'worn nozzle': 0.85 }, 'Gauges and fibre through it.', 'bore'),
  'bore gauged within its limit lately': records(0.5, { 'worn nozzle': 0.06 }, 'A gauge since the last jobs.', 'bore'),
  'tip worn shorter than its limit': records(
    0.05,
    { 'worn nozzle': 0.7 },
    'What wears the bore wears the tip.',
    'bore',
  ),
  // records: flow
  'bench dropped since its first': records(
    0.06,
    { 'partial clog': 0.85, 'residue': 0.4, 'grip': 0.25, 'heat creep': 0.2 },
    'It delivered more before.',
    'bench',
  ),
  'share off alike at all flows': records(
    0.05,
    { 'steps or diameter': 0.9 },
    'Slow and fast short by the same share.',
    'bench',
  ),
  'another nozzle on this head alike': records(
    0.3,
    { 'grip': 0.85, 'melting limit': 0.8, 'partial clog': 0.06, 'worn nozzle': 0.08 },
    'What stays with the head is not the nozzle.',
    'bench',
  ),
  'hotter did not help': records(
    0.5,
    { 'grip': 0.85, 'melting limit': 0.08, 'partial clog': 0.5, 'sensor off': 0.2, 'wrong profile': 0.3 },
    'Heat melts faster and grips no better.',
    'hotter',
  ),
  'hotter helped': records(
    0.2,
    { 'melting limit': 0.85, 'wrong profile': 0.6, 'sensor off': 0.55, 'grip': 0.08, 'moisture': 0.1 },
    'It was too cold, or too fast.',
    'hotter',
  ),
  'flow above what this nozzle sustains': records(
    0.12,
    { 'melting limit': 0.85, 'grip': 0.35 },
    'The file asks more than the bench found.',
    'flow',
  ),
  'flow below what this nozzle sustains': records(
    0.7,
    { 'melting limit': 0.06 },
    'The file asks less than the bench found.',
    'flow',
  ),
  // records: setpoints
  'setpoints of another filament': records(0.05, { 'wrong profile': 0.85 }, 'It fits another window.', 'profile'),
  'setpoint under the window': records(
    0.08,
    { 'wrong profile': 0.6, 'residue': 0.2, 'melting limit': 0.2 },
    'Colder than the filament asks.',
    'profile',
  ),
  'setpoint over the window': records(
    0.08,
    { 'wrong profile': 0.5, 'heat creep': 0.2 },
    'Hotter than it asks.',
    'profile',
  ),
  'part fan high for this filament': records(
    0.1,
    { 'wrong profile': 0.7, 'cold or drafty chamber': 0.3 },
    'It cools what should bond.',
    'profile',
  ),
  'hotter filament went through before, not purged clean': records(
    0.07,
    { 'residue': 0.9, 'partial clog': 0.25 },
    'The old one is solid at the new temperature.',
  ),
  // records: chamber and plate
  'chamber needed and cold': records(
    0.08,
    { 'cold or drafty chamber': 0.85, 'plate or adhesive': 0.15 },
    'The filament asks a warm one.',
    'chamber',
  ),
  'not soaked as long as planned': records(
    0.15,
    { 'cold or drafty chamber': 0.7 },
    'Air and bed were not even.',
    'chamber',
  ),
  'chamber too warm for this filament': records(
    0.06,
    { 'heat creep': 0.85 },
    'It softens before it reaches the melt.',
    'chamber',
  ),
  'sheet is not one it holds on': records(
    0.06,
    { 'plate or adhesive': 0.35 },
    'By the practices of the filament; the right sheet may be greasy all the same.',
    'plate',
  ),
  'adhesive not renewed': records(0.2, { 'plate or adhesive': 0.75 }, 'It wears with each part.', 'plate'),
  'head moved or nozzle changed since Z was set': records(0.1, { 'Z or level': 0.85 }, 'The distance is another.'),
  // records: sensor, spool, path
  'sensor check failed': records(0.05, { 'sensor off': 0.9 }, 'It shows what is not so.', 'sensor'),
  'sensor not checked for long': records(0.4, { 'sensor off': 0.7 }, 'Nobody knows.', 'sensor'),
  'other prints of this spool elsewhere fine': records(
    0.5,
    { 'moisture': 0.15, 'brittle filament': 0.15, 'steps or diameter': 0.3, 'sensor off': 0.8, 'wrong profile': 0.4 },
    'What travels with the spool is not it.',
    'elsewhere',
  ),
  'other prints of this spool elsewhere bad': records(
    0.12,
    { 'moisture': 0.7, 'brittle filament': 0.7, 'steps or diameter': 0.6, 'something else': 0.25 },
    'It travels with the spool.',
    'elsewhere',
  ),
  'other spools on this head fine': records(
    0.4,
    {
      'moisture': 0.75,
      'brittle filament': 0.8,
      'steps or diameter': 0.5,
      'worn nozzle': 0.12,
      'grip': 0.2,
      'partial clog': 0.12,
    },
    'What stays with the head is not it.',
    'head',
  ),
  'other spools on this head bad': records(
    0.2,
    {
      'partial clog': 0.7,
      'worn nozzle': 0.6,
      'grip': 0.65,
      'sensor off': 0.6,
      'bend or tangle': 0.6,
      'steps or diameter': 0.55,
      'moisture': 0.12,
      'brittle filament': 0.1,
    },
    'It stays with the head.',
    'head',
  ),
  'dried longer than its hours': records(0.08, { 'brittle filament': 0.85 }, 'Filled nylon gets brittle.'),
  'tight bend in the path': records(
    0.12,
    { 'bend or tangle': 0.85, 'brittle filament': 0.4 },
    'By its radius and the strand’s.',
  ),
} as const satisfies Record<string, Row>
/** A sign, by name. */
export type Sign = keyof typeof SIGNS
export type Table = Readonly<Record<string, Row>>

/** What a test may find: how likely that is, and under which causes it is likelier. */
export interface Result {
  usual: number
  under: Partial<Record<Cause, number>>
}
export interface TestRow {
  /** What is done. */
  what: string
  minutes: number
  /** What it may find, by name. */
  results: Readonly<Record<string, Result>>
  /** What it finds otherwise; its chance is what is left. */
  otherwise: string
  /** Signs of the same group say the same thing less well: the test counts in full, they by their root. */
  group: string | null
  /** What hurts at it, by the action that the cautions know; null where it is done cold. */
  action: Action | null
  reason: string
}
/** What a test may find. */
export type Finds = Pick<TestRow, 'results' | 'otherwise'>
/** Tests that settle something, with what they cost. */
export const TESTS = {
  'lens': {
    what: 'Push out a strand and look at it and at the tip through a lens',
    minutes: 2,
    results: {
      'bubbles in the strand': { usual: 0.06, under: { 'moisture': 0.75, 'sensor off': 0.1 } },
      'a mouth that is not round': {
        usual: 0.08,
        under: { 'partial clog': 0.45, 'worn nozzle': 0.45, 'residue': 0.4 },
      },
    },
    otherwise: 'a clear strand and a round mouth',
    group: 'water',
    action: 'test it hot',
    reason: 'Bubbles are water; a ragged mouth is wear or a plug.',
  },
  'pull': {
    what: 'Hold the filament with a spring scale and let the gears pull',
    minutes: 2,
    results: { 'it slips under its usual pull': { usual: 0.08, under: { 'grip': 0.9, 'brittle filament': 0.2 } } },
    otherwise: 'it pulls as usual',
    group: null,
    action: null,
    reason: 'Tension and teeth show in the pull.',
  },
  'gauge': {
    what: 'Gauge the bore, cold and clean',
    minutes: 5,
    results: { 'past its limit': { usual: 0.07, under: { 'worn nozzle': 0.93 } } },
    otherwise: 'within its limit',
    group: 'bore',
    action: null,
    reason: 'The bore itself.',
  },
  'mark': {
    what: 'Mark 100 mm of filament and feed it, hot and slowly',
    minutes: 5,
    results: {
      'less went in': {
        usual: 0.06,
        under: { 'steps or diameter': 0.4, 'grip': 0.4, 'bend or tangle': 0.25, 'partial clog': 0.12 },
      },
      'more went in': { usual: 0.05, under: { 'steps or diameter': 0.35 } },
    },
    otherwise: 'as much as told went in',
    group: null,
    action: 'test it hot',
    reason: 'What is told and what goes in.',
  },
  'feeler': {
    what: 'Feel Z and the three points with a feeler gauge, hot',
    minutes: 8,
    results: { 'off by more than a feeler': { usual: 0.07, under: { 'Z or level': 0.93 } } },
    otherwise: 'Z and level are right',
    group: null,
    action: 'test it hot',
    reason: 'The distance itself.',
  },
  'cold pull': {
    what: 'A cold pull through the nozzle',
    minutes: 12,
    results: {
      'something dark comes with it': {
        usual: 0.1,
        under: { 'partial clog': 0.8, 'residue': 0.85, 'heat creep': 0.3 },
      },
    },
    otherwise: 'it comes out clean',
    group: null,
    action: 'clear a clog',
    reason: 'What stands in it comes along.',
  },
  'sensor': {
    what: 'Hold a reference to the sensor of the hotend',
    minutes: 20,
    results: { 'off by more than it may be': { usual: 0.06, under: { 'sensor off': 0.93 } } },
    otherwise: 'it shows what is so',
    group: 'sensor',
    action: 'check a sensor',
    reason: 'The temperature itself.',
  },
  'bench': {
    what: 'A flow bench, from slow to as fast as it is printed',
    minutes: 25,
    results: {
      'the fast blobs fall short': {
        usual: 0.1,
        under: { 'grip': 0.88, 'melting limit': 0.88, 'partial clog': 0.8, 'heat creep': 0.4, 'residue': 0.5 },
      },
      'all are off alike': { usual: 0.06, under: { 'steps or diameter': 0.85 } },
    },
    otherwise: 'none falls short',
    group: 'bench',
    action: 'print',
    reason: 'Delivery against flow.',
  },
  'part again': {
    what: 'The part again, with what is suspected put right',
    minutes: 180,
    results: {
      'it comes out well': {
        usual: 0.5,
        under: {
          'wrong profile': 0.9,
          'plate or adhesive': 0.85,
          'cold or drafty chamber': 0.8,
          'something else': 0.2,
        },
      },
    },
    otherwise: 'it shows the same',
    group: null,
    action: 'print',
    reason: 'It proves what was put right, and takes long.',
  },
  'spool dried': {
    what: 'Another spool of it, dried for 8 h',
    minutes: 480,
    results: {
      'it prints well': {
        usual: 0.08,
        under: { 'moisture': 0.93, 'brittle filament': 0.6, 'steps or diameter': 0.4 },
      },
    },
    otherwise: 'it shows the same',
    group: 'head',
    action: 'dry',
    reason: 'What travels with the spool is gone with it.',
  },
} as const satisfies Record<string, TestRow>
/** A test, by name. */
export type TestName = keyof typeof TESTS
export type Tests = Readonly<Record<string, TestRow>>
/** Everything that a test may find, what it finds otherwise last. */
export const resultsOf = (test: Finds): string[] => [...Object.keys(test.results), test.otherwise]
