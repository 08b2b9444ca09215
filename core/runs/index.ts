/**
 * Runs as they are logged: what is asked about because it can hardly be so. ms since 1970, mm³, mm³/s, hours, g. What
 * is outside its range is refused by an InputError that names the field and what is allowed.
 */
export { HIGHEST_FLOW_MM3S, HIGHEST_FLOW_RANGE, meanFlowMm3S, overlap, RUN_H, sameRun, SLACK_MIN } from './doubt'
export { during, spanOf } from './doubt'
export type { PassedThrough, Span } from './doubt'
