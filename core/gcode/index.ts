/**
 * The job-file reader: G-code bytes in, extruded lengths, flow, heat, fan and problems out. mm, mm³/s, s, °C. What is
 * outside its range is refused by an InputError that names the field and what is allowed; sources stand at the head of
 * each file.
 */
export { Scan } from './scan'
export { movesH, publicResult, stoppedAt } from './profile'
export type { Stop, StoppedTool } from './profile'
export { EXACT_MOVES } from './flow'
export { MOST_TOOLS, SETPOINT_C } from './types'
export type {
  Dialect,
  FlowFigures,
  FullScan,
  Problem,
  ProblemKind,
  ProfileStep,
  ScanOptions,
  ScanResult,
  ToolFlow,
  ToolTotals,
} from './types'
