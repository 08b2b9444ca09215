/** The job-file reader: G-code bytes in, extruded lengths, flow, heat, fan and problems out. */
export { Scan } from './scan'
export { publicResult, stoppedAt } from './profile'
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
