/**
 * The kinds of entry: the one registry. What can be struck out, what ends, which tables refuse change, the views that
 * leave out what is struck, and the checks of the database all come from here; adding a kind starts here
 * (docs/house.md).
 */
import { SPOOL_KINDS } from './choices'
import { STOCK_MOVES } from '#core/stock'

interface Log {
  /** Its table: rows are added, never changed or deleted. */
  table: string
  /** Tables whose rows go with an entry. */
  rows?: readonly string[]
  /** It can be struck out: there is a view `standing_<table>` without what is struck. */
  struck: boolean
  /** It is started and then ends: the columns that its ending brings to the view. */
  ending?: readonly string[]
  /** A nozzle's forecast rests on it. */
  ofNozzle?: boolean
  /** What may stand in its column `kind`. */
  kinds?: readonly string[]
}

const ENDED = ['occurred_at ended_at', 'outcome'] as const

export const LOGS = {
  'run': { table: 'runs', rows: ['run_tools'], struck: true, ofNozzle: true },
  'gauge': { table: 'gauges', struck: true, ofNozzle: true, kinds: ['receipt', 'service'] },
  'picture': { table: 'blobs', struck: false },
  'scale': { table: 'scales', struck: true },
  'study': { table: 'studies', struck: true },
  'study reading': { table: 'study_readings', struck: true },
  'fitting': { table: 'fittings', struck: true, ofNozzle: true, kinds: ['fit', 'remove', 'retire'] },
  'spool event': { table: 'spool_events', struck: true, kinds: SPOOL_KINDS },
  'stack change': {
    table: 'stack_changes',
    rows: ['part_events', 'assembly_events'],
    struck: true,
    kinds: ['described', 'changed', 'tagged', 'bench'],
  },
  'drying': {
    table: 'dryings',
    struck: true,
    ending: ['occurred_at ended_at', 'actual_c', 'gross_g after_g', 'outcome'],
  },
  'soak': { table: 'soaks', struck: true, ending: ENDED },
  'warm-up': { table: 'warm_ups', struck: true },
  'place of a warm-up': { table: 'warm_up_places', struck: false },
  'sensor check': { table: 'sensor_checks', struck: true },
  'survey': { table: 'surveys', struck: true },
  'enclosure plan': { table: 'enclosure_plans', struck: true },
  'cut-out test': { table: 'cut_out_tests', struck: true },
  'flow bench': { table: 'flow_benches', rows: ['flow_bench_runs'], struck: true, ending: ENDED },
  'blob': { table: 'flow_blobs', struck: true },
  'filament measure': { table: 'filament_measures', struck: true },
  'case': { table: 'cases', struck: true },
  'finding': { table: 'case_findings', struck: true },
  'closing': { table: 'case_closings', struck: true },
  'changeover': { table: 'changeovers', struck: true },
  'anneal': { table: 'anneals', struck: true, ending: ENDED },
  'cool-down': { table: 'cool_downs', struck: true, ending: ENDED },
  'procedure': { table: 'procedures', struck: true, ending: ENDED },
  'procedure tick': { table: 'procedure_ticks', struck: true },
  'Z record': { table: 'z_records', struck: true },
  'level': { table: 'levels', struck: true },
  'upkeep': { table: 'upkeep_entries', struck: true },
  'pin certificate': { table: 'pin_certificates', struck: true },
  'stock move': { table: 'stock_moves', struck: true, kinds: STOCK_MOVES },
  'snooze': { table: 'snoozes', struck: true },
  'out of service': { table: 'service_tags', struck: true, ending: ENDED },
  'shift note': { table: 'shift_notes', struck: true, ending: ENDED },
  'import': { table: 'imports', rows: ['import_rows'], struck: true },
  'ending': { table: 'endings', struck: false },
  'check': { table: 'prechecks', struck: false },
  'job': { table: 'jobs', struck: false },
  'strike': { table: 'strikes', struck: false },
  'edit': { table: 'edits', struck: false },
} as const satisfies Record<string, Log>

export type LogKind = keyof typeof LOGS
type Having<K extends string> = {
  [L in LogKind]: (typeof LOGS)[L] extends Record<K, true | readonly string[]> ? L : never
}[LogKind]
/** What can be struck out, and what ends. */
export type StrikeTarget = Having<'struck'>
export type EndingTarget = Having<'ending'>

const kinds = Object.entries(LOGS) as [LogKind, Log][]
const having = <T extends LogKind>(has: (l: Log) => boolean) =>
  kinds.filter(([, l]) => has(l)).map(([k]) => k) as [T, ...T[]]
export const STRIKE_TARGETS = having<StrikeTarget>(l => l.struck)
export const ENDING_TARGETS = having<EndingTarget>(l => l.ending !== undefined)
/** Tables that refuse change. */
export const LOG_TABLES: readonly string[] = kinds.flatMap(([, l]) => [l.table, ...(l.rows ?? [])])
/** A kind's log, in the words that all have in common. */
export const logOf = (kind: LogKind): Log => LOGS[kind]
