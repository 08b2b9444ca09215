/* eslint-disable max-lines -- a table: written cases with the answer of a careful technician */
/**
 * What is wrong with this print: cases with the answer of a careful technician, written before any table of chances was
 * made, so that the table can be held against them and not they against the table. Common practice, no source; the
 * shops and runs in them are invented.
 *
 * `seen` is what the print shows, `not` what was looked for and is not there, `known` what the shop's records tell.
 * What stands in neither was not asked. `answer` is what the technician would say; `or` what they would name in the
 * same breath; an answer of null is "not enough to tell".
 */

export const CAUSES = [
  'worn nozzle',
  'moisture',
  'partial clog',
  'grip',
  'melting limit',
  'steps or diameter',
  'heat creep',
  'residue',
  'wrong profile',
  'cold or drafty chamber',
  'plate or adhesive',
  'Z or level',
  'sensor off',
  'brittle filament',
  'bend or tangle',
] as const
export type Cause = (typeof CAUSES)[number]

/** What a print shows, and when. */
export const SEEN = [
  'uneven lines',
  'under-extruded',
  'stringing',
  'popping',
  'gaps at speed',
  'warped corners',
  'split layers',
  'nothing comes out',
  'bad first layer',
  'blobs',
  'ooze',
  'from the start',
  'after some hours',
  'since the nozzle was changed',
  'again at the same height',
  'steam or bubbles in the strand',
  'lines thicker than set',
  'strand curls to one side',
  'gears grind or click',
  'filament snapped',
] as const
export type Seen = (typeof SEEN)[number]

/** What the records of the shop tell. */
export const KNOWN = [
  'bore probably past its limit',
  'bore gauged within its limit lately',
  'spool wet by its clock',
  'spool dry by its clock',
  'other prints of this spool elsewhere fine',
  'other prints of this spool elsewhere bad',
  'other spools on this head fine',
  'other spools on this head bad',
  'flow above what this nozzle sustains',
  'flow below what this nozzle sustains',
  'bench dropped since its first',
  'hotter did not help',
  'hotter helped',
  'another nozzle on this head alike',
  'share off alike at all flows',
  'setpoint under the window',
  'setpoint over the window',
  'setpoints of another filament',
  'hotter filament went through before, not purged clean',
  'not soaked as long as planned',
  'chamber needed and cold',
  'part fan high for this filament',
  'chamber too warm for this filament',
  'head moved or nozzle changed since Z was set',
  'sheet is not one it holds on',
  'adhesive not renewed',
  'sensor not checked for long',
  'sensor check failed',
  'dried longer than its hours',
  'tight bend in the path',
] as const
export type Known = (typeof KNOWN)[number]

export interface DiagnosisCase {
  name: string
  seen: readonly Seen[]
  not?: readonly Seen[]
  known?: readonly Known[]
  answer: Cause | null
  or?: readonly Cause[]
}

export const CASES: readonly DiagnosisCase[] = [
  {
    name: 'brass after a kilogram of fibre: lines widen over weeks',
    seen: ['uneven lines', 'lines thicker than set'],
    not: ['popping', 'stringing'],
    known: ['bore probably past its limit', 'spool dry by its clock'],
    answer: 'worn nozzle',
  },
  {
    name: 'uneven lines, the bore was gauged yesterday and is fine, the spool lay out',
    seen: ['uneven lines', 'stringing'],
    known: ['bore gauged within its limit lately', 'spool wet by its clock'],
    answer: 'moisture',
  },
  {
    name: 'nylon pops and hisses after a night in the room',
    seen: ['popping', 'stringing', 'steam or bubbles in the strand'],
    known: ['spool wet by its clock'],
    answer: 'moisture',
  },
  {
    name: 'pops although the records call the spool dry: the nose wins over the book',
    seen: ['popping', 'steam or bubbles in the strand', 'stringing'],
    known: ['spool dry by its clock'],
    answer: 'moisture',
  },
  {
    name: 'starts clean and strings after seven hours, spool in the room',
    seen: ['stringing', 'after some hours', 'ooze'],
    not: ['gears grind or click'],
    known: ['spool wet by its clock'],
    answer: 'moisture',
  },
  {
    name: 'strand leaves to one side, delivery fell since its first bench',
    seen: ['strand curls to one side', 'under-extruded'],
    known: ['bench dropped since its first', 'other spools on this head bad'],
    answer: 'partial clog',
  },
  {
    name: 'thin since yesterday, another nozzle on the head is fine',
    seen: ['under-extruded', 'uneven lines'],
    known: ['bench dropped since its first', 'bore gauged within its limit lately', 'spool dry by its clock'],
    answer: 'partial clog',
  },
  {
    name: 'nothing comes out after polycarbonate was followed by PLA without a purge',
    seen: ['nothing comes out', 'gears grind or click'],
    known: ['hotter filament went through before, not purged clean', 'setpoint under the window'],
    answer: 'residue',
    or: ['partial clog'],
  },
  {
    name: 'dark specks and rough lines in the first hour after a change of filament',
    seen: ['uneven lines', 'blobs', 'from the start'],
    not: ['popping'],
    known: ['hotter filament went through before, not purged clean', 'spool dry by its clock'],
    answer: 'residue',
  },
  {
    name: 'gaps in fast infill, every nozzle on the head alike, hotter changed nothing',
    seen: ['gaps at speed', 'gears grind or click'],
    known: ['another nozzle on this head alike', 'hotter did not help'],
    answer: 'grip',
  },
  {
    name: 'teeth marks and dust under the gears, thin lines at any speed above slow',
    seen: ['under-extruded', 'gears grind or click', 'gaps at speed'],
    known: ['hotter did not help', 'flow below what this nozzle sustains', 'spool dry by its clock'],
    answer: 'grip',
    or: ['partial clog'],
  },
  {
    name: 'gaps at speed in a job asked to run faster than the bench allowed, better when hotter',
    seen: ['gaps at speed', 'under-extruded'],
    known: ['flow above what this nozzle sustains', 'hotter helped'],
    answer: 'melting limit',
  },
  {
    name: 'new fast profile: solid slow walls, hollow fast infill',
    seen: ['gaps at speed'],
    not: ['gears grind or click', 'popping'],
    known: ['flow above what this nozzle sustains', 'bore gauged within its limit lately'],
    answer: 'melting limit',
  },
  {
    name: 'everything six percent thin on every job since the gears were changed, at any flow',
    seen: ['under-extruded', 'from the start'],
    not: ['gaps at speed', 'gears grind or click'],
    known: ['share off alike at all flows', 'other spools on this head bad'],
    answer: 'steps or diameter',
  },
  {
    name: 'one spool is thin on every printer, at every flow',
    seen: ['under-extruded', 'from the start'],
    not: ['popping'],
    known: [
      'share off alike at all flows',
      'other prints of this spool elsewhere bad',
      'other spools on this head fine',
    ],
    answer: 'steps or diameter',
  },
  {
    name: 'PLA in a warm shut chamber stops feeding after an hour, pulls free with a swollen end',
    seen: ['nothing comes out', 'after some hours', 'gears grind or click'],
    known: ['chamber too warm for this filament'],
    answer: 'heat creep',
  },
  {
    name: 'PPA under a closed lid clogs an hour in, fine with the lid raised',
    seen: ['under-extruded', 'after some hours'],
    not: ['popping'],
    known: ['chamber too warm for this filament', 'bore gauged within its limit lately', 'spool dry by its clock'],
    answer: 'heat creep',
    or: ['partial clog'],
  },
  {
    name: 'file made for another filament: forty degrees low, layers come apart',
    seen: ['split layers', 'under-extruded', 'from the start'],
    known: ['setpoints of another filament', 'setpoint under the window'],
    answer: 'wrong profile',
  },
  {
    name: 'PA-CF with the fan of PLA',
    seen: ['split layers', 'warped corners', 'from the start'],
    known: ['setpoints of another filament', 'part fan high for this filament'],
    answer: 'wrong profile',
    or: ['cold or drafty chamber'],
  },
  {
    name: 'large ABS part on an open frame by the door',
    seen: ['warped corners', 'split layers'],
    not: ['popping', 'under-extruded'],
    known: ['chamber needed and cold'],
    answer: 'cold or drafty chamber',
  },
  {
    name: 'soak cut short, corners lift in the upper half and a crack runs along a layer',
    seen: ['warped corners', 'split layers', 'after some hours'],
    known: ['not soaked as long as planned', 'chamber needed and cold'],
    answer: 'cold or drafty chamber',
  },
  {
    name: 'whole part slides off at the second layer, PEI without the glue that it wants',
    seen: ['bad first layer', 'warped corners', 'from the start'],
    known: ['sheet is not one it holds on', 'adhesive not renewed'],
    answer: 'plate or adhesive',
  },
  {
    name: 'corners lift from the plate on the third print since the glue was renewed; chamber as ever',
    seen: ['warped corners', 'bad first layer'],
    not: ['split layers'],
    known: ['adhesive not renewed'],
    answer: 'plate or adhesive',
    or: ['cold or drafty chamber', 'Z or level'],
  },
  {
    name: 'first layer scraped and clear on the left, loose on the right, since the nozzle was changed',
    seen: ['bad first layer', 'since the nozzle was changed', 'from the start'],
    not: ['popping'],
    known: ['head moved or nozzle changed since Z was set'],
    answer: 'Z or level',
  },
  {
    name: 'first layer does not touch, everything above it prints well once it holds',
    seen: ['bad first layer', 'from the start'],
    not: ['uneven lines', 'under-extruded'],
    known: ['head moved or nozzle changed since Z was set', 'spool dry by its clock'],
    answer: 'Z or level',
  },
  {
    name: 'hotend reads twenty low: ooze and strings everywhere, at the setpoint of always',
    seen: ['ooze', 'stringing', 'from the start'],
    not: ['popping', 'steam or bubbles in the strand'],
    known: ['sensor check failed', 'spool dry by its clock', 'other prints of this spool elsewhere fine'],
    answer: 'sensor off',
  },
  {
    name: 'layers part on one printer alone, other printers are fine with the same file and spool',
    seen: ['split layers', 'under-extruded'],
    known: ['sensor check failed', 'other prints of this spool elsewhere fine'],
    answer: 'sensor off',
  },
  {
    name: 'snaps in the tube twice a day since it came out of the oven',
    seen: ['filament snapped', 'nothing comes out'],
    known: ['dried longer than its hours'],
    answer: 'brittle filament',
  },
  {
    name: 'snaps at the same tight turn of the drag chain, any spool of it',
    seen: ['filament snapped', 'nothing comes out'],
    known: ['tight bend in the path', 'other spools on this head bad'],
    answer: 'bend or tangle',
    or: ['brittle filament'],
  },
  {
    name: 'thin for a few layers, then well again, at no fixed height; the spool jerks',
    seen: ['under-extruded', 'after some hours', 'gears grind or click'],
    not: ['again at the same height', 'popping'],
    known: [
      'tight bend in the path',
      'other prints of this spool elsewhere fine',
      'bore gauged within its limit lately',
    ],
    answer: 'bend or tangle',
    or: ['grip'],
  },
  {
    name: 'stringing, and nothing else was asked',
    seen: ['stringing'],
    answer: null,
    or: ['moisture'],
  },
  {
    name: 'uneven lines, and nothing else was asked',
    seen: ['uneven lines'],
    answer: null,
    or: ['worn nozzle', 'moisture'],
  },
  {
    name: 'thin lines, spool and nozzle both in doubt',
    seen: ['under-extruded', 'uneven lines'],
    known: ['spool wet by its clock', 'bore probably past its limit'],
    answer: null,
    or: ['moisture', 'worn nozzle', 'partial clog'],
  },
  {
    name: 'a case with no evidence at all',
    seen: [],
    answer: null,
  },
]
