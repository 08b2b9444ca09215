/** The tables a shop brings along: what each kind has for columns, in which units, and by which headings. */
import { FILLERS, NOZZLE_MATERIALS } from '../wear'
import { HUB_WORDS } from '../drying'
import { STARTING_STACKS } from '../limits'

export interface Column {
  key: string
  label: string
  reads: 'text' | 'number' | 'day' | 'yes' | 'choice'
  /** The unit it is kept in; what others count in it. */
  unit?: string
  units?: Readonly<Record<string, number>>
  needed?: boolean
  choices?: readonly string[]
  /** Other headings people write over it. */
  also: readonly string[]
  example: string
}
export interface TableKind {
  /** What one line is, and several of them. */
  one: string
  many: string
  /** Lines are entries of a log, with their day, and not things that are here or not. */
  isLog?: boolean
  columns: readonly Column[]
}

const GRAMS = { g: 1, gram: 1, grams: 1, kg: 1000 }
const MM = { mm: 1, µm: 0.001, μm: 0.001, um: 0.001, cm: 10 }
const METRES = { m: 1, mm: 0.001, cm: 0.01 }
const HOURS = { h: 1, hours: 1, hour: 1, min: 1 / 60, minutes: 1 / 60 }
const CELSIUS = { '°c': 1, 'c': 1, '°': 1 }
const text = (key: string, label: string, example: string, also: string[] = []): Column => ({
  key,
  label,
  reads: 'text',
  also,
  example,
})
const needed = (c: Column): Column => ({ ...c, needed: true })
/** A number: the unit it is kept in, and what others count in it. */
const figure = (
  key: string,
  label: string,
  units: Record<string, number>,
  unit: string,
  example: string,
  also: string[] = [],
): Column => ({ ...text(key, label, example, also), reads: 'number', unit, units })
const grams = (key: string, label: string, example: string, also: string[] = []) =>
  figure(key, label, GRAMS, 'g', example, also)
const mm = (key: string, label: string, example: string, also: string[] = []) =>
  figure(key, label, MM, 'mm', example, also)
const celsius = (key: string, label: string, example: string, also: string[]) =>
  figure(key, label, CELSIUS, '°C', example, also)
const choice = (c: Column, choices: readonly string[]): Column => ({ ...c, reads: 'choice', choices })
const note = text('note', 'note', '', ['notes', 'comment', 'comments', 'remark', 'remarks'])
/** Lists that were written out say so of what was struck out; such a line is not taken in again. */
const struck = text('struck', 'struck out because', '', ['struck out', 'struck'])
const day = (key: string, label: string, example: string, also: string[]): Column => ({
  ...text(key, label, example, also),
  reads: 'day',
})

/**
 * The tables that can be pasted. Headings: common practice, no source. Units: grams and millimetres, and what people
 * write instead of them.
 */
export const TABLES = {
  printers: {
    one: 'printer',
    many: 'printers',
    columns: [
      needed(text('name', 'name', 'Calder', ['printer', 'machine'])),
      choice(
        needed(text('stack', 'starts from', 'open frame', ['stack', 'kind', 'type', 'style'])),
        STARTING_STACKS.map(s => s.key),
      ),
      note,
    ],
  },
  types: {
    one: 'nozzle type',
    many: 'nozzle types',
    columns: [
      needed(text('name', 'name', 'hardened steel 0.4', ['type', 'nozzle type'])),
      choice(text('material', 'material', 'hardened steel', ['of', 'made of']), NOZZLE_MATERIALS),
      mm('bore', 'bore', '0.4', ['nominal bore', 'diameter', 'size', 'orifice']),
      mm('length', 'length', '12.5', ['overall length']),
      mm('tipFlat', 'tip flat', '1', ['flat', 'tip']),
      mm('land', 'land', '0.8', ['land length']),
      mm('inlet', 'inlet', '2', ['inlet bore']),
      {
        ...text('torque', 'torque', '1.5', ['tightening torque']),
        reads: 'number',
        unit: 'N·m',
        units: { 'n·m': 1, 'nm': 1 },
      },
      note,
    ],
  },
  nozzles: {
    one: 'nozzle',
    many: 'nozzles',
    columns: [
      text('tag', 'tag', 'N-001', ['nozzle', 'id', 'no', 'number', 'name']),
      needed(text('type', 'type', 'hardened steel 0.4', ['nozzle type', 'model', 'kind'])),
      { ...text('used', 'came used', 'no', ['used', 'second hand', 'pre-used']), reads: 'yes' },
      day('received', 'received', '2026-01-15', ['date', 'received on', 'bought', 'since']),
      mm('bore', 'bore measured', '0.41', ['measured bore', 'measured', 'receipt bore', 'gauged']),
      mm('boreU', 'bore give or take', '0.01', ['give or take', 'uncertainty', 'tolerance']),
      text('printer', 'on printer', 'Calder', ['printer', 'fitted on', 'fitted to', 'machine', 'location']),
      text('head', 'head', 'head', ['tool', 'toolhead']),
      day('fitted', 'fitted since', '2026-02-01', ['fitted', 'fitted at', 'installed']),
      note,
    ],
  },
  materials: {
    one: 'material',
    many: 'materials',
    columns: [
      needed(text('name', 'name', 'PA6-CF20', ['material', 'filament'])),
      text('polymer', 'polymer', 'PA6', ['matrix', 'base', 'base polymer']),
      choice(text('filler', 'filler', 'carbon fibre', ['fibre', 'fiber', 'filled with']), FILLERS),
      {
        ...text('wt', 'filler share', '20', [
          'filler wt',
          'fibre share',
          'fiber share',
          'filler content',
          'fibre content',
          'wt',
        ]),
        reads: 'number',
        unit: 'wt%',
        units: { 'wt%': 1, '%': 1, 'wt-%': 1 },
      },
      {
        ...text('density', 'density', '1.17', []),
        reads: 'number',
        unit: 'g/cm³',
        units: { 'g/cm³': 1, 'g/cm3': 1, 'kg/m³': 0.001, 'kg/m3': 0.001 },
      },
      note,
    ],
  },
  spools: {
    one: 'spool',
    many: 'spools',
    columns: [
      text('tag', 'tag', 'S-01', ['spool', 'id', 'no', 'number', 'name']),
      needed(text('material', 'material', 'PA6-CF20', ['filament', 'type'])),
      mm('diameter', 'diameter', '1.75', ['filament diameter']),
      grams('net', 'filament when full', '1000', ['net', 'net weight', 'weight', 'full', 'size']),
      grams('tare', 'empty spool', '210', ['tare', 'spool weight', 'core', 'reel']),
      grams('gross', 'on the balance now', '830', [
        'gross',
        'weight now',
        'weighed',
        'on the balance',
        'weight now with its spool',
        'current weight',
      ]),
      grams('left', 'left', '620', ['remaining', 'remainder', 'rest', 'left now']),
      choice(text('hub', 'hub', 'cardboard', ['hub material', 'core material']), HUB_WORDS),
      day('opened', 'opened', '2026-03-01', ['opened on', 'open since', 'date']),
      note,
    ],
  },
  people: {
    one: 'person',
    many: 'people',
    columns: [
      needed(text('name', 'name', 'Evening technician', ['person', 'who', 'initials'])),
      choice(text('role', 'role', 'technician', ['job', 'position']), ['technician', 'lead']),
    ],
  },
  runs: {
    one: 'run',
    many: 'past runs',
    isLog: true,
    columns: [
      needed(text('printer', 'printer', 'Calder', ['machine', 'on printer'])),
      needed(day('ended', 'ended', '2026-03-01 17:30', ['date', 'day', 'end', 'finished at', 'when', 'time'])),
      text('name', 'what', 'bracket', ['job', 'name', 'part', 'file', 'print']),
      text('material', 'material', 'PA6-CF20', ['filament']),
      text('spool', 'spool', 'S-01', ['spool tag', 'reel']),
      text('nozzle', 'nozzle', 'N-001', ['nozzle tag']),
      grams('grams', 'printed', '120', ['grams', 'mass', 'weight', 'used', 'extruded', 'filament used', 'amount']),
      figure('metres', 'length', METRES, 'm', '40', ['metres', 'meters', 'filament length']),
      grams('before', 'spool before', '980', ['weight before', 'before']),
      grams('after', 'spool after', '860', ['weight after', 'after']),
      figure('hours', 'took', HOURS, 'h', '5.5', ['hours', 'duration', 'print time']),
      choice(text('outcome', 'outcome', 'finished', ['result', 'status', 'ok']), ['finished', 'failed']),
      text('head', 'head', 'head', ['tool', 'toolhead']),
      celsius('nozzleC', 'nozzle set', '280', ['nozzle temperature', 'nozzle temp', 'hotend temperature', 'nozzle c']),
      celsius('bedC', 'bed set', '90', ['bed temperature', 'bed temp', 'bed c']),
      celsius('chamberC', 'chamber set', '60', ['chamber temperature', 'chamber temp', 'chamber c']),
      text('surface', 'sheet and adhesive', 'PEI + glue stick', ['surface', 'build surface', 'sheet', 'adhesive']),
      note,
      struck,
    ],
  },
  gauges: {
    one: 'gauge',
    many: 'gauges',
    isLog: true,
    columns: [
      needed(text('nozzle', 'nozzle', 'N-001', ['tag', 'nozzle tag'])),
      needed(day('gauged', 'gauged', '2026-03-01', ['date', 'day', 'gauged on', 'measured on', 'when'])),
      mm('bore', 'bore measured', '0.43', ['bore', 'measured bore', 'measured', 'diameter', 'value']),
      mm('boreU', 'bore give or take', '0.01', ['give or take', 'uncertainty', 'tolerance']),
      mm('go', 'largest pin that goes', '0.42', ['go', 'go pin']),
      mm('noGo', 'smallest that does not', '0.43', ['no go', 'no-go', 'no go pin', 'nogo']),
      mm('tip', 'length', '12.46', ['tip', 'tip length', 'overall length']),
      note,
      struck,
    ],
  },
  weighings: {
    one: 'weighing',
    many: 'weighings',
    isLog: true,
    columns: [
      needed(text('spool', 'spool', 'S-01', ['tag', 'spool tag', 'reel'])),
      needed(day('weighed', 'weighed', '2026-03-01', ['date', 'day', 'weighed on', 'when'])),
      needed(grams('gross', 'on the balance', '830', ['gross', 'weight', 'mass', 'weight with its spool'])),
      note,
      struck,
    ],
  },
} as const satisfies Record<string, TableKind>

export type TableName = keyof typeof TABLES
/** In the order in which a shop brings them: what is named in a table stands in one before it. */
export const TABLE_NAMES = Object.keys(TABLES) as [TableName, ...TableName[]]
/** The columns of a table. */
export const columnsOf = (table: TableName): readonly Column[] => TABLES[table].columns
/** Whether the lines of a table are entries of a log, which can be struck out. */
export const isLogTable = (table: TableName): boolean => (TABLES[table] as TableKind).isLog === true
